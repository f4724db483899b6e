export { beside } from "./beside";
export { byMm } from "./byMm";
export { clearances } from "./clearance";
export { type ClosedVolume, closedVolumes } from "./closedVolumes";
export { type Cutter, meets } from "./cutter";
export {
  type DrawnFrame,
  type DrawnJoint,
  type DrawnMember,
  type DrawnPart,
  type DrawnSection,
  drawnFrameSchema,
  groupIdSchema,
  memberNameSchema,
  type Point,
} from "./drawnSchema";
export { emptyFrame, member, statedPoint } from "./drawnStart";
export {
  type Axis,
  addMember,
  centreOn,
  copiesWithin,
  copyMembers,
  deleteMembers,
  moveCorner,
  moveEnd,
  moveMembers,
  renameMember,
  setJoint,
  setLength,
  setMember,
  setSection,
  spaceEqually,
  splitMember,
} from "./editing";
export type { Clash } from "./findJoints";
export { addPart, capOpenEnds, copyPart, fitPart, openEnds, type PartTarget } from "./fittedParts";
export { type FlatPart, flatParts, isFlatUpright } from "./flatParts";
export {
  CARES,
  type Care,
  CORNER_WAYS,
  CROWNS,
  DIRECTIONS,
  type Direction,
  FACE_LINES,
  type FaceLine,
  PART_KINDS,
  type PartKind,
  SEAMS,
  SHAPES,
} from "./frameWords";
export {
  type FromLines,
  fromLines,
  LINE_MEANINGS,
  type LineMeaning,
  type LinesWish,
  layersOf,
  usualWish,
} from "./fromLines";
export { fromRectangle } from "./fromRectangle";
export { fullestLevel } from "./fullestLevel";
export { groundFaces } from "./groundFaces";
export { handedness } from "./handed";
export { joiningOrder } from "./joining";
export {
  DRAWING_UNITS,
  type DrawingUnit,
  extentOf,
  type LineWork,
  likelyUnit,
  MOST_LINES,
  type WorkLine,
} from "./lineWork";
export { MATERIAL_NAMES, MATERIALS, type MaterialName } from "./materials";
export { measuredShape, readSurvey, sidesOf } from "./measuredShape";
export type { EndName, Placed } from "./meeting";
export { type Axes, memberAxes } from "./memberAxes";
export { flipMembers, mirrorMembers } from "./mirroring";
export { JOINT_REACH_MM, type NearMiss, nearMisses } from "./nearMisses";
export { thicknessOf } from "./parts";
export { directionWord, place, shapeOf } from "./placing";
export { leansAsDrawn, quadrilateralOf } from "./quadrilateral";
export { depthsOf, reachToward } from "./reachToward";
export { rectangleProblems } from "./rectangleProblems";
export { type Rectangle, rectangleSchema } from "./rectangleSchema";
export { bodyPoints, middleOf, resolveStructure } from "./resolveStructure";
export { isHollow, isRound } from "./sectionOutline";
export { PROFILES, profilesFor, sectionProperties } from "./sections";
export { sectionWords } from "./sectionWords";
export { faceMm, type ShapeProperties, shapeProperties } from "./shapes";
export { splitForSize } from "./sizeLimit";
export { type Snap, snap } from "./snapping";
export {
  STARTERS,
  type Starter,
  type StarterField,
  type StarterValues,
  starterProblems,
  usualValues,
} from "./starters";
export {
  type FoundGap,
  type Quadrilateral,
  type Structure,
  type StructureFace,
  type StructureJoint,
  type StructureMember,
  tubeBeginsMm,
} from "./structure";
export { structureProblems } from "./structureProblems";
export { type Measure, surveyFrom } from "./surveyFrom";
export { takenOut } from "./takenOut";
export { TOLERANCES } from "./tolerances";
export { byAngle, byJog, turnedBy, untilMember } from "./towards";
export { a500Tolerance, en10219Tolerance } from "./tubeTolerances";
export { laidFlat, TURN_NAMES, TURNS, type Turned, type TurnName, turnFrame } from "./turning";
export { FROM_ABOVE, FROM_FRONT, FROM_RIGHT, inSpace, outOf, seenAt, type ViewAxes } from "./viewAxes";
