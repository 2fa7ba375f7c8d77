export { LogPage } from "./pages/LogPage";
