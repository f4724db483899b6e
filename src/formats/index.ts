export * from "./cutCsv";
export * from "./jobFile";
export * from "./readingsCsv";
export * from "./report";
export * from "./simulation";
