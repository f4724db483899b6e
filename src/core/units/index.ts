export * from "./combine";
export * from "./format";
export * from "./instrument";
export * from "./length";
export * from "./lengthSchema";
export * from "./result";
export * from "./tapeLimit";
export * from "./uncertainty";
