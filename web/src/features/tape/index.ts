export { TapePage } from "./pages/TapePage";
