export { EyePage } from "./pages/EyePage";
export { SittingPage } from "./pages/SittingPage";
