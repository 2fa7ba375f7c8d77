export { TestsPage } from "./pages/TestsPage";
