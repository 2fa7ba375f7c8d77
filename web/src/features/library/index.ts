export { LibraryPage } from "./pages/LibraryPage";
