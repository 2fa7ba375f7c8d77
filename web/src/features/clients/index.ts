export { ClientsPage } from "./pages/ClientsPage";
