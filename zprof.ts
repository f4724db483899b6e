import { newPlan, predict } from "./src/core/job";

const p0 = newPlan("x", "mm");
const plan = {
  ...p0,
  frame: {
    by: "sizes",
    sizes: {
      ...(p0.frame as any).sizes,
      length: { mm: 3000, text: "3000", unit: "mm" },
      cross: Array.from({ length: 9 }, (_, i) => ({
        id: `M${i + 1}`,
        at: { mm: 200 + 280 * i, text: String(200 + 280 * i), unit: "mm" },
      })),
    },
  } as any,
};
for (const p of [p0, plan])
  for (let i = 0; i < 4; i++) {
    const t = performance.now();
    predict(p as any);
    console.log(performance.now() - t);
  }
