export { VerdictPage } from "./pages/VerdictPage";
