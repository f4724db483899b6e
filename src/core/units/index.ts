export * from "./estimate";
export * from "./format";
export * from "./length";
export * from "./lengthSchema";
export * from "./result";
export * from "./slant";
export * from "./slantSchema";
export * from "./stated";
