export { PlanPage } from "./pages/PlanPage";
export { PrintPage } from "./pages/PrintPage";
