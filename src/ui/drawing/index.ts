export * from "./FrameDrawing";
