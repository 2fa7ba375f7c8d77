export { Agreement } from "./Agreement";
export { Ask, CannotTell, KindAsked } from "./Ask";
export { type Frame, RegionFrames } from "./RegionFrames";
export { colour, type Kind, MiniScale, Scale } from "./Scale";
