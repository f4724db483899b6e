export * from "./asCut";
export * from "./cutList";
export * from "./ends";
export * from "./fitUp";
export * from "./holes";
export * from "./nesting";
export * from "./sawSchema";
export * from "./stockSchema";
