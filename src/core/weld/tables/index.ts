export type { JointState } from "./jointState";
export { type MitreForm, mitreState, stripOf } from "./mitreTable";
export { chordContraction, type TeeForm, teeState } from "./teeTable";
