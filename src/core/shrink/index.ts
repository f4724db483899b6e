export * from "./band";
export * from "./closedForm";
export * from "./constants";
export * from "./heat";
export * from "./prediction";
export * from "./weldSchema";
