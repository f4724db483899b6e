export * from "./cutList";
export * from "./ends";
export * from "./fitUp";
export * from "./nesting";
export * from "./stockSchema";
