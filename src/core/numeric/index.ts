export * from "./dense";
export * from "./drain";
export * from "./linear";
export * from "./random";
export * from "./skyline";
export * from "./tails";
export * from "./vec3";
export * from "./vector";
