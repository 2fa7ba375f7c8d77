export { useMyTalk } from "./api";
export { Conversation, MyConversation } from "./components/Conversation";
export { Notes } from "./components/Notes";
export { MessagesPage } from "./pages/MessagesPage";
