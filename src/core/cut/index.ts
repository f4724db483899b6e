export * from "./cutList";
export * from "./ends";
export * from "./fitUp";
