export * from "./chordLoad";
export * from "./factors";
export * from "./heat";
export * from "./jointFit";
export * from "./jointGeometry";
export * from "./ring";
export * from "./ringConstants";
export * from "./weldSchema";
