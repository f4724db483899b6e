export * from "./tails";
export * from "./vector";
