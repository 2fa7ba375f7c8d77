export { TodayPage } from "./pages/TodayPage";
