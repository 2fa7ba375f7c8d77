export { FirstLook } from "./components/FirstLook";
export { TourPage } from "./pages/TourPage";
