export { knownEntries } from "./entries";
export { addInstruments, listInstruments } from "./instruments";
export {
  appendEntries,
  insertJob,
  type JobLine,
  lastSawScale,
  listJobs,
  loadJob,
  lockJob,
  type News,
  newsOf,
  type StoredJob,
  updatePlan,
  updateSummary,
} from "./jobs";
export { closePool, isDuplicate, isUnreachable, pool, type Transaction, transaction } from "./pool";
export { keepPrediction, loadPrediction } from "./predictions";
export { addTestBead, countTestBeads, listTestBeads } from "./testBeads";
