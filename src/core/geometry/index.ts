export * from "./flatness";
export * from "./flatnessScatter";
export * from "./fourCorners";
export * from "./minimumZone";
export * from "./overlap";
export * from "./plane";
