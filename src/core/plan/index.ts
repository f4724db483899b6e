export * from "./acrossAndAround";
export * from "./faces";
export * from "./hingeFirst";
export * from "./schools";
export * from "./simulationOf";
export * from "./step";
export * from "./structureOrder";
