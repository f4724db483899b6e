export * from "./moved";
export * from "./scene";
