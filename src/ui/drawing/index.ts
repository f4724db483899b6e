export { FrameDrawing } from "./FrameDrawing";
export type { LineMark, PointMark, SpanMark, Tone } from "./marks";
export { useScene } from "./useScene";
