export * from "./entries";
export * from "./instruments";
export * from "./jobs";
export * from "./pool";
