export * from "./linear";
export * from "./tails";
export * from "./vector";
