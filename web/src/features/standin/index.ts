export { StandInPage } from "./pages/StandInPage";
