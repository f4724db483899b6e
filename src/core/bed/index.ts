export * from "./flatness";
export * from "./fourCorners";
export * from "./opticalLevel";
export * from "./plane";
export * from "./shims";
