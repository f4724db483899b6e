export * from "./footprint";
export * from "./lying";
export * from "./sagOnRests";
export * from "./shims";
export * from "./support";
export * from "./survey";
export * from "./tableTwist";
export * from "./tubeSags";
