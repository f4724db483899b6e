export * from "./bedVerdict";
export * from "./conformity";
export * from "./iso13920";
export * from "./limits";
export * from "./limitsSchema";
export * from "./lying";
export * from "./provable";
export * from "./verdicts";
