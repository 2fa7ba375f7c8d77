export { useAsked } from "./api";
export type { Asked, PoseAsked } from "./model";
export { useWaiting, type Waiting } from "./useWaiting";
export { forgetPictures, waitingCount } from "./waiting";
