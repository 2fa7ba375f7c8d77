export { BriefForm } from "./components/BriefForm";
export { BriefPage } from "./pages/BriefPage";
export { NewClientPage } from "./pages/NewClientPage";
