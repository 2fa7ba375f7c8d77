export { BriefPage } from "./pages/BriefPage";
export { NewClientPage } from "./pages/NewClientPage";
