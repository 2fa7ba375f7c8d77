export { ReviewPage } from "./pages/ReviewPage";
export { ReviewPrintPage } from "./pages/ReviewPrintPage";
export { TrendsPage } from "./pages/TrendsPage";
