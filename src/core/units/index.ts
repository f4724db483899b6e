export * from "./format";
export * from "./length";
export * from "./result";
export * from "./uncertainty";
