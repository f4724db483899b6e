export { alongLine, tapedAlong } from "./alongTube";
export { type BackBow, type Bowed, backBow, backBowWords, bowedMembers } from "./backBow";
export { barProposals } from "./barProposals";
export { bearersUnder, type PlannedBearer, restsOnBearers } from "./bearersOf";
export type { BedRound } from "./bedRound";
export { type BowLine, bowLines } from "./bowLines";
export { bubbleMmPerM, packerMmPerM, statedSlope, turnedLevel } from "./bubble";
export { builtOf, overallSizeMm } from "./built";
export { type BuyingPart, buyingParts, type Laid } from "./buyingParts";
export { buyingWords } from "./buyingWords";
export { CARRIES, CARRIES_WORDS, type Carries } from "./carries";
export { CARRIES_CAUTION, STAGE_CAUTIONS } from "./cautions";
export { type Collision, collide, planChanges } from "./changes";
export { beyondPairs, coldSet, railsOf, tapedPairs } from "./coldSet";
export { type Correction, type CorrectionWay, correcting, type FirstGo, firstGo } from "./correction";
export {
  amountWords,
  besidesWords,
  correctedQuantity,
  correctionAdvice,
  correctionWayWords,
  goWords,
  leavesNow,
  readAgainWords,
} from "./correctionWords";
export { couponAsRead } from "./couponAsRead";
export { couponCut, couponPlan, FRAME_COUPONS, type FrameCoupon } from "./couponPlan";
export { entryProblem, hasLeaves, isReadAt, readingProblem } from "./entries";
export {
  type Change,
  type Entry,
  type How,
  type NewEntry,
  newEntrySchema,
  type ReadingEntry,
  type RoundEntry,
  type Taken,
} from "./entrySchema";
export { type Evaluation, evaluate, type Summary, summaryOf } from "./evaluate";
export { type CutRound, piecesOf } from "./evaluationContext";
export { cellOfPlan, factorsOf } from "./factorsOf";
export { type FinishStep, finishSteps } from "./finishSteps";
export { bedKindOf } from "./fixtureWish";
export { following } from "./following";
export { chanceWords, type Forecast, forecastWords, likelyFailure } from "./forecast";
export { FORMAT } from "./format";
export { type FrameTeaching, frameTeaching, frameTeachingOf } from "./frameLesson";
export { type FrameRound, wantedPlaces } from "./frameRound";
export { frictionWords } from "./frictionWords";
export { frontier } from "./frontier";
export {
  FULL_SCALE_VIEWS,
  type FullScaleDrawing,
  type FullScaleView,
  type FullScaleWish,
  fullScaleOf,
} from "./fullScaleOf";
export type { GateAdvice } from "./gateAdvice";
export { gateLines } from "./gateLines";
export { type GateReading, gateReading, measuring } from "./gateReading";
export { grindMoves } from "./grindMoves";
export { type GrindMoves, grindWords } from "./grindWords";
export { hasInsideTrade } from "./hasInsideTrade";
export { barsOf, type PlannedBar, tacksBearN, usuallyLies } from "./held";
export {
  type HoldingAdvice,
  type HoldingOutlook,
  type HoldingWay,
  heldSo,
  holdingAdvice,
  holdingTrials,
  holdingWays,
  wayWords,
  withTrial,
} from "./holdingWays";
export { type InsideTrade, insideTrade } from "./insideTrade";
export { insideTradeWords } from "./insideTradeWords";
export { type Job, jobSchema } from "./jobSchema";
export {
  type JointFit,
  jointFitAdvice,
  type ReadGap,
  readGaps,
  withFilled,
  withShut,
} from "./jointFit";
export { jointFit } from "./jointFitting";
export { type LaidElement, type LaidOut, layOut } from "./layOut";
export {
  clampCaution,
  type FixtureCheck,
  fixtureChecks,
  laidWords,
  OWN_ROLE_WORDS,
  pickList,
  SHELF_WORDS,
  thingWords,
} from "./layOutWords";
export { learnedWords } from "./learnedWords";
export { meantOtherwise, readLeaves } from "./leaves";
export { likelyLosses, lossLines } from "./lossLines";
export { equalGapWords, type MarkedOut, markingOutOf, markWords, measuredFromWords } from "./markingOutOf";
export { orderAdvice, unlikelyAtBest } from "./orderAdvice";
export { isCutAndSet } from "./orderChoices";
export { EQUAL, inOrder, type OrderOutlook, timeOf } from "./orderOutlook";
export {
  betterToLookAt,
  comparing,
  schoolsToLookAt,
  suitedOutlook,
  type Tell,
} from "./orderPlanning";
export { cutToLookAt, ranked } from "./orderRanking";
export { orderRemedies } from "./orderRemedies";
export { type Remedies, remedyWords } from "./orderRemedyWords";
export type { PlanningWish } from "./orderSearching";
export { orderOutlook } from "./outlookByDraws";
export { mostWords, worstWords } from "./outlookWords";
export { handlingWords, paceOf, paceWords } from "./pace";
export { jointsInPart, type OwnPart, ownParts, partJob, partName } from "./partJob";
export { partPlan } from "./partPlan";
export { PLACED_AS_WORDS } from "./placedAs";
export { newPlan, planProblems, refusals, restsGrid, restsUnder } from "./plan";
export { type Plan, planSchema, type Rest } from "./planSchema";
export { PLATES, plateBow, plateBowWords } from "./plateBow";
export { predict, predicting } from "./predict";
export { canPredict, frameKey, jointsOf, predictionKey, whyNoPrediction } from "./predictable";
export type { Loss } from "./predictedMeasured";
export { distanceId, quantityKey, quantityWords, spanId, spanOf } from "./quantityId";
export type { QuantityId } from "./quantitySchema";
export { meantMm, readingText } from "./readingWords";
export { type RecordLine, recordLines } from "./recordLines";
export { releaseWords, shortForce } from "./releaseWords";
export type { Remedy } from "./remedies";
export { correctedWords, remedyName } from "./remedyWords";
export { keyOf, type Mean, type Round, roundsOf, type Standing, stillStands } from "./rounds";
export { materialOf, settingsWords, thinnestWallMm, weldOf } from "./settings";
export { sharedWords } from "./sharedWords";
export { SHEETS, type Sheet, type SheetBlock, type SheetCell, type SheetName, sheetOf } from "./sheets";
export { STAGES, type Stage } from "./stages";
export { effectWords, runWords, seamFacts, stepEffect } from "./stepEffect";
export { surveyReadingWords, surveyWords } from "./surveyWords";
export { tickedInTurn } from "./tickedInTurn";
export { CLOSE, cutTick, type TickId, tickKey } from "./tickId";
export { turnedPlan } from "./turnedPlan";
export { storedEntries, storedPlan, upgradeEntries, upgradePlan } from "./upgrade/upgrade";
export { cleanSawTest } from "./usualStock";
export {
  addedInWords,
  addedWords,
  bandWords,
  beyondWords,
  cutToWords,
  diagonalsThenWords,
  type Hold,
  heldWords,
  laidOver,
  lockedWords,
  misreadWords,
  nudgeWords,
  pieceSection,
  placeWords,
  plusMinus,
  predictedDecimals,
  restWords,
  setUpWords,
  tapWords,
  toGapWords,
  twistWords,
} from "./words";
