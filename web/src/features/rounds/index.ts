export { ClientPage } from "./pages/ClientPage";
export { LaterPage } from "./pages/LaterPage";
export { RoundPage } from "./pages/RoundPage";
