export { MyPage } from "./pages/MyPage";
