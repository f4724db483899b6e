import { fromStructure } from "./src/core/mechanics";
import { seeded } from "./src/core/numeric";
import { frameOutputs, OrderSearch, type SimulationStep } from "./src/core/shrink";
import { FACTORS, weldedModel } from "./src/core/weld";
import { ladder, tacksThenBeads } from "./tests/support/ladder";
const random = seeded(7);
function shuffled(steps: readonly SimulationStep[], from: number) { const out = [...steps]; for (let i = out.length - 1; i > from; i--) { const j = from + Math.floor(random() * (i - from + 1)); [out[i], out[j]] = [out[j]!, out[i]!]; } return out; }
for (const [rungs,counts] of [[0,{ mitreTacks: 4, teeTacks: 0, teeBeads: 0 }],[10,{ mitreTacks: 2, teeTacks: 2, teeBeads: 2 }]] as const) {
  const frame = ladder(rungs, rungs===0?{ size: "50.8", wall: "4.8", depth: "" }:undefined); const { steps, tacks } = tacksThenBeads(frame, counts);
  const mechanics = fromStructure(frame); const model = weldedModel(mechanics.frame); const outputs = frameOutputs(frame, mechanics.joints)(model); outputs.rows.length = 40;
  const search = new OrderSearch(model, FACTORS, steps, outputs);
  const G=(globalThis as any); for(let k=0;k<3;k++){ G.cnt={}; const t=performance.now(); const N=rungs?20:200; for(let i=0;i<N;i++) search.exact(shuffled(steps,tacks),false); console.log(model.joints.length, steps.length, ((performance.now()-t)/N).toFixed(2)+' ms', G.cnt);}
}
