export { doorOf, doorOfRound, takenAs, useAsked, useToTake } from "./api";
export type { Asked, PoseAsked } from "./model";
export { OpenedCapture } from "./Opened";
export { useWaiting, type Waiting } from "./useWaiting";
export { forgetPictures, type Take, waitingCount } from "./waiting";
