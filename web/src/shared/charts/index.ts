export { LeanBar } from "./LeanBar";
export { LedgerBar } from "./LedgerBar";
export { LoadBar } from "./LoadBar";
export { OverTime } from "./OverTime";
export { PlumbLine } from "./PlumbLine";
export type { Mark } from "./timeline";
