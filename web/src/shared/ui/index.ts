export { Dialog } from "./Dialog";
export { ErrorNote } from "./ErrorNote";
export { PlumbMark } from "./PlumbMark";
export { SideMark } from "./SideMark";
export { StandingMark } from "./StandingMark";
