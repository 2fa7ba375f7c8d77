export { Dialog } from "./Dialog";
export { ErrorNote } from "./ErrorNote";
export { NewVersion } from "./NewVersion";
export { NumberInput } from "./NumberInput";
export { PlumbMark } from "./PlumbMark";
export { SideMark } from "./SideMark";
export { StandingMark } from "./StandingMark";
export { Title } from "./Title";
