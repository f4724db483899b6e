export * from "./FrameDrawing";
export * from "./StructureDrawing";
