export { BodyFigure, type Shade } from "./BodyFigure";
export { MovementPicture } from "./MovementPicture";
export { HALF, SHAPES, type View } from "./shapes";
