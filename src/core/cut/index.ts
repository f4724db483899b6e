export * from "./cutList";
export * from "./ends";
