export { PhotosPage } from "./pages/PhotosPage";
export { RepeatsPage } from "./pages/RepeatsPage";
