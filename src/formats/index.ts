export { cutCsv } from "./cutCsv";
export { JOB_FILE_LIMIT_BYTES, JOB_FILE_VERSION, jobFileJsonSchema, readJobFile, writeJobFile } from "./jobFile";
export { ordersData, ordersText } from "./orders";
export { readingsCsv } from "./readingsCsv";
export { reportData, reportText } from "./report";
export { simulationData, simulationText } from "./simulation";
