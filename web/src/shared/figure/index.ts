export { BodyFigure, type Shade } from "./BodyFigure";
export { HALF, SHAPES, type View } from "./shapes";
