export { Agreement } from "./Agreement";
export { Ask, CannotTell, KindAsked } from "./Ask";
export { type Frame, RegionFrames } from "./RegionFrames";
export { colour, type Kind, MiniScale, Scale, SIDE_KEYS, STANDING_KEYS } from "./Scale";
