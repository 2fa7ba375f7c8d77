export { Fetch } from "./Fetch";
export { SendLines, SendTray } from "./SendLines";
export type { Way } from "./transfer";
export { isOpen, type Sending, type Sent, useSending } from "./useSending";
