export { alsoPieces, type BarPiece, freeAlso, type ListedPiece, MOST_ALSO, withListed } from "./alsoPieces";
export { type AsCut, alikeSides, asCut, matchWords, type PairCheck } from "./asCut";
export { type Closing, closingGaps, closingMembers, closingProblems } from "./closing";
export { type CutPiece, cutList } from "./cutList";
export { DRILL_FACES, DRILL_FOR, drillAlongMm, drillList, drillProblems } from "./drill";
export { type Drill, drillSchema } from "./drillSchema";
export { jointGap, riseRun, sawTest, sawTestProblems } from "./fitUp";
export {
  FINISHES,
  type Finish,
  finishesFor,
  finishesOffered,
  type HoleAdvice,
  holeAdvice,
  openMembers,
} from "./holes";
export { inRuns } from "./inRuns";
export { type AlongOff, type FirstEnd, firstEndOf, type Mark, type MarkedPiece, markingOut } from "./markingOut";
export { type CutBar, type Nesting, nestingProblem, type Solved } from "./nesting";
export { onScale, type PieceEnd, SAW_SCALES, type SawScale } from "./pieceEnds";
export { preparations } from "./prepare";
export { type SawTestReading, sawTestSchema } from "./sawSchema";
export { solveNesting } from "./solveNesting";
export { stockProblems } from "./stockProblems";
export { type Stock, stockSchema } from "./stockSchema";
export { type CopeEdge, sheetStartsMm, templatesOf, type WrapTemplate } from "./wrapTemplate";
