export * from "./diagnosis";
export * from "./halfRule";
export * from "./impossible";
export * from "./network";
export * from "./setUp";
export * from "./shape";
export * from "./squareCheck";
export * from "./twistOnDiagonals";
