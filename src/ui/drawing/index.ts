export { FrameDrawing, type LineMark, type PointMark, type SpanMark, type Tone } from "./FrameDrawing";
export { useScene } from "./useScene";
