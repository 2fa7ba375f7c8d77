export { LeanBar } from "./LeanBar";
export { LedgerBar } from "./LedgerBar";
export { LoadBar } from "./LoadBar";
export { PlumbLine } from "./PlumbLine";
