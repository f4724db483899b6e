export { besideEntries } from "./entries";
export { addInstruments, instrumentsElsewhere, listInstruments, putInstrumentAway } from "./instruments";
export {
  appendEntries,
  entriesSince,
  insertJob,
  type JobLine,
  type JobPage,
  jobsTaken,
  lastSawScale,
  listJobIds,
  listJobs,
  loadJob,
  lockJob,
  type News,
  newsOf,
  putJobAway,
  type StoredJob,
  updatePlan,
  updateSummary,
} from "./jobs";
export { addLessons, countLessons, listLessons } from "./lessons";
export {
  type AuditLine,
  appendAudit,
  countFailures,
  type Device,
  endDevice,
  endOtherDevices,
  FIRST_SHOP,
  insertDevice,
  insertInvitation,
  insertPerson,
  listAudit,
  listDevices,
  listPeople,
  lockOwners,
  lockPerson,
  noteFailure,
  type Person,
  passwordsOf,
  personOfDevice,
  type Role,
  setLeft,
  setPassword,
  setRole,
  shopName,
  useInvitation,
} from "./people";
export { closePool, isDuplicate, isFull, isUnreachable, pool, type Transaction, transaction } from "./pool";
export { keepPrediction, loadPrediction } from "./predictions";
export { endPresence, notePresence, type Present, presentAt, standOf } from "./presence";
export { addTestBead, countTestBeads, listTestBeads } from "./testBeads";
export { upkeepAt } from "./upkeep";
