export { useClients } from "./api";
export { ClientsPage } from "./pages/ClientsPage";
