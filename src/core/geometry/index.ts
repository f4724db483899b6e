export { CORNERS, type Corner, DIAGONALS, ends, SIDES, type Side, SPANS, type Span } from "./corners";
export { type Flatness, flatness, fourWeights } from "./flatness";
export { flatnessScatter, noiseFloor, type Scatter } from "./flatnessScatter";
export { type FourCorners, fourCorners } from "./fourCorners";
export { hull } from "./hull";
export { circleCrossing, lineCrossing, nearestOnStretch } from "./lines";
export { MinimumZone } from "./minimumZone";
export { overlapMm, partingDirections } from "./overlap";
export { fitPlane, heightOf, type Plane } from "./plane";
