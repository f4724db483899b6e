import { newPlan, predict } from "./src/core/job";
import { squareTube, started } from "./tests/support/drawnFrames";
import { drawnPlan } from "./tests/support/plans";
console.log(predict(newPlan("x","mm"))!.prediction.reasons); console.log(predict(drawnPlan(started("gate leaf")))!.prediction.reasons); console.log(predict(drawnPlan(started("ladder")))!.prediction.reasons);
