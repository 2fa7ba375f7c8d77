export { LeanBar } from "./LeanBar";
export { LedgerBar } from "./LedgerBar";
export { PlumbLine } from "./PlumbLine";
