export { PracticePage } from "./pages/PracticePage";
