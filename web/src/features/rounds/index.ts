export { NewRoundDialog } from "./components/NewRoundDialog";
export { ClientPage } from "./pages/ClientPage";
export { RoundPage } from "./pages/RoundPage";
