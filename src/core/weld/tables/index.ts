export type { JointState } from "./jointState";
export { type MitreForm, mitreState, stripOf } from "./mitreTable";
export { type SeamState, seamsOf } from "./seamTable";
export { chordContraction, type TeeForm, teeState } from "./teeTable";
