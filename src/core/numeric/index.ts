export { luSolve, matMul, matVec, symmetrise } from "./dense";
export { type Candidate, type Diagnosis, diagnose } from "./diagnosis";
export { drain, partOf } from "./drain";
export { symmetricEigen } from "./eigen";
export { Groups } from "./groups";
export {
  type LeastSquares,
  leastSquares,
  type Noise,
  type ReadingTests,
  testReadings,
  whitening,
} from "./leastSquares";
export { cholesky, conditionRatio, entry, multiplyColumn, type Rows, solveCholesky, solveSmall, zeros } from "./linear";
export { optimum, type Row } from "./optimum";
export { normalDraw, seeded } from "./random";
export { factorSkyline, type Skyline, type Sparse, skyline, solveSkyline, sparseAdd, sparseDot } from "./skyline";
export { smoothQuantile } from "./smoothQuantile";
export { rowsTimes, type SparseRows, sparseRows } from "./sparseRows";
export { chiSquareTail, normalCdf } from "./tails";
export { add3, cross3, dot3, norm3, scale3, squareTo, sub3, unit3, type Vec3 } from "./vec3";
export { add, cross, degrees, distance, dot, norm, radians, scale, sub, unit, type Vec2 } from "./vector";
