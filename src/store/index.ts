export { addInstruments } from "./instruments";
export { insertJob, loadJob } from "./jobs";
export { closePool, isDuplicate, isUnreachable, pool, transaction } from "./pool";
