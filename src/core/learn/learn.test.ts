import { readFileSync } from "node:fs";
import path from "node:path";
import fc from "fast-check";
import { inverse, Matrix } from "ml-matrix";
import { describe, expect, it } from "vitest";
import { normalDraw, seeded } from "../numeric";
import { believed, expected, information, learn, sdsOf } from "./learn";
import { learnScatter } from "./scatter";
import { surprise } from "./surprise";
import { logSd, type Teaching, toldBy, USUAL_SCATTER } from "./teaching";

const NONE = { beadCv: 0, dayCv: 0, modelShare: 0, modelMm: 0 };
const one = (change: number, u = 0.06, effect = 0.35): Teaching => ({
  sources: [{ bead: "b", factors: ["transverse"], effect: [effect] }],
  change: [change],
  noise: { u: [u] },
});
const prior = () => believed({ transverse: logSd(0.25) });

/** A frame of four sides and two diagonals as a case file gives it. */
const frame = (): Pick<Teaching, "sources" | "linear"> => {
  const file = path.join(import.meta.dirname, "../../../tests/reference/cases/learning/c38_predict.json");
  return (JSON.parse(readFileSync(file, "utf8")) as { inputs: { job: Teaching } }).inputs.job;
};

describe("learning factors", () => {
  it("is the linear Gaussian update where nothing but the readings scatters (held against ml-matrix)", () => {
    const job: Teaching = {
      sources: [],
      linear: { gap: [0.4, -0.2, 0.1], joint: [0.1, 0.3, -0.5] },
      change: [0.3, 0.2, -0.1],
      noise: { u: [0.1, 0.2, 0.15] },
    };
    const start = believed({ gap: 0.7, joint: 0.3 });
    const told = learn(start, [job], NONE, false);
    const j = new Matrix([
      [0.4, 0.1],
      [-0.2, 0.3],
      [0.1, -0.5],
    ]);
    const w = Matrix.diag([1 / 0.01, 1 / 0.04, 1 / 0.0225]);
    const cov = inverse(Matrix.add(Matrix.diag([1 / 0.49, 1 / 0.09]), j.transpose().mmul(w).mmul(j)));
    const mean = cov
      .mmul(j.transpose())
      .mmul(w)
      .mmul(Matrix.columnVector([0.3, 0.2, -0.1]));
    told.mean.forEach((m, i) => {
      expect(m).toBeCloseTo(mean.get(i, 0), 10);
    });
    told.cov.flat().forEach((v, i) => {
      expect(v).toBeCloseTo(cov.get(Math.floor(i / 2), i % 2), 10);
    });
  });
  it("agrees with a brute-force posterior on a grid", () => {
    const jobs = [one(0.41), one(0.45, 0.05), one(0.39, 0.08)];
    const scatter = { ...USUAL_SCATTER, dayCv: 0, modelShare: 0, modelMm: 0 };
    const told = learn(prior(), jobs, scatter, false);
    let [sum, first, second] = [0, 0, 0];
    for (let t = -1.2; t < 1.2; t += 0.001) {
      let log = -(t * t) / (2 * logSd(0.25) ** 2);
      for (const job of jobs) {
        const { mean, scatter: v } = toldBy(job, ["transverse"], [t], scatter);
        const variance = (v[0]?.[0] ?? 0) + ("u" in job.noise ? (job.noise.u[0] ?? 0) ** 2 : 0);
        log -= ((job.change[0] ?? 0) - (mean[0] ?? 0)) ** 2 / (2 * variance) + Math.log(variance) / 2;
      }
      const w = Math.exp(log);
      sum += w;
      first += w * t;
      second += w * t * t;
    }
    const mean = first / sum;
    // The iteration leaves the variance's own slope out: half a standard deviation's tenth.
    expect(told.mean[0]).toBeCloseTo(mean, 1);
    expect(sdsOf(told)[0]).toBeCloseTo(Math.sqrt(second / sum - mean ** 2), 1);
  });
  it("narrows by every coupon that fits, and by none that contradicts", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.25, max: 0.5, noNaN: true }), { minLength: 1, maxLength: 5 }), (all) => {
        const told = learn(
          prior(),
          all.map((c) => one(c)),
        );
        const [sd] = sdsOf(told);
        const [was] = sdsOf(prior());
        expect(sd).toBeLessThanOrEqual((was ?? 0) + 1e-12);
        if (!told.contradicts) expect(sd).toBeLessThan(was ?? 0);
      }),
    );
    const against = learn(
      prior(),
      [one(0.05), one(1.6), one(0.05), one(1.6)],
      { ...USUAL_SCATTER, beadCv: 0.1 },
      false,
    );
    expect(against.contradicts).toBe(true);
    expect(sdsOf(against)[0]).toBeCloseTo(logSd(0.25), 6);
  });
  it("does not hang on the order of the jobs", () => {
    const jobs = [one(0.3), one(0.42), one(0.5, 0.1)];
    const [a, b] = [learn(prior(), jobs), learn(prior(), [...jobs].reverse())];
    expect(a.mean[0]).toBeCloseTo(b.mean[0] ?? 0, 9);
    expect(sdsOf(a)[0]).toBeCloseTo(sdsOf(b)[0] ?? 0, 9);
  });
  it("tells beforehand as much as it then narrows", () => {
    const told = information(prior(), one(0));
    const after = learn(prior(), [one(toldBy(one(0), ["transverse"], [0], USUAL_SCATTER).mean[0] ?? 0)]);
    expect((sdsOf(after)[0] ?? 0) / logSd(0.25)).toBeCloseTo(told.narrowedTo.transverse ?? 0, 6);
  });
});

describe("shops that are simulated", () => {
  it("find bands that hold nine in ten after two coupons and three frames, and a side's band narrower by a third", () => {
    const random = seeded(171);
    const sds = { transverse: logSd(0.25), tackHeat: logSd(0.4) };
    const job = frame();
    const names = Object.keys(sds);
    const factor = (f: string): string => (f === "muT" ? "transverse" : f === "tack" ? "tackHeat" : f);
    const sources = job.sources.map((s) => ({ ...s, factors: s.factors.map(factor) }));
    const uFrame = job.sources[0]?.effect.map((_, i) => (i < 4 ? 0.1 : 0.15)) ?? [];
    /** What a shop of these factors reads: beads and days lognormal, readings normal. */
    const reads = (of: Teaching["sources"], u: readonly number[], logs: readonly number[]): number[] => {
      const day = Math.exp(logSd(USUAL_SCATTER.dayCv) * normalDraw(random));
      const beads = new Map(of.map((s) => [s.bead, Math.exp(logSd(USUAL_SCATTER.beadCv) * normalDraw(random))]));
      return u.map((uMm, r) => {
        const mean = of.reduce(
          (s, x) =>
            s +
            day *
              (beads.get(x.bead) ?? 1) *
              Math.exp(x.factors.reduce((t, f) => t + (logs[names.indexOf(f)] ?? 0), 0)) *
              (x.effect[r] ?? 0),
          0,
        );
        const model = Math.hypot(USUAL_SCATTER.modelShare * mean, USUAL_SCATTER.modelMm) * normalDraw(random);
        return mean + model + uMm * normalDraw(random);
      });
    };
    const SHOPS = 1000;
    const inside = uFrame.map(() => 0);
    let [factorInside, narrower] = [0, 0];
    const before = expected(believed(sds), { sources });
    for (let shop = 0; shop < SHOPS; shop++) {
      const logs = names.map((n) => sds[n as keyof typeof sds] * normalDraw(random));
      const coupon = one(0).sources;
      const jobs: Teaching[] = [
        ...[0, 1].map((): Teaching => ({ sources: coupon, change: reads(coupon, [0.06], logs), noise: { u: [0.06] } })),
        ...[0, 1, 2].map((): Teaching => ({ sources, change: reads(sources, uFrame, logs), noise: { u: uFrame } })),
      ];
      const told = learn(believed(sds), jobs);
      const sd = sdsOf(told)[0] ?? 0;
      if (Math.abs((told.mean[0] ?? 0) - (logs[0] ?? 0)) <= 1.645 * sd) factorInside++;
      const next = expected(told, { sources });
      narrower += (next.sd[0] ?? 0) / (before.sd[0] ?? 1) / SHOPS;
      reads(sources, uFrame, logs).forEach((read, i) => {
        if (Math.abs(read - (next.mean[i] ?? 0)) <= 1.645 * Math.hypot(next.sd[i] ?? 0, uFrame[i] ?? 0))
          inside[i] = (inside[i] ?? 0) + 1;
      });
    }
    // Sides: bands of a normal. Diagonals and twist hang on the lognormal beads one by one, whose tails a normal cuts shorter.
    for (const [i, n] of inside.entries()) {
      const share = n / SHOPS;
      expect(share, `reading ${i} inside ${share}`).toBeGreaterThan(0.87);
      expect(share, `reading ${i} inside ${share}`).toBeLessThan(0.95);
    }
    expect(factorInside / SHOPS).toBeGreaterThan(0.87);
    expect(factorInside / SHOPS).toBeLessThan(0.93);
    expect(narrower).toBeLessThan(0.7);
    expect(narrower).toBeGreaterThan(0.4);
  });
  it("learn their own scatter where frames tell it", () => {
    const random = seeded(5);
    const sources = [0.3, -0.4, 0.35, -0.3].map((e, bead) => ({
      bead,
      factors: ["transverse"],
      effect: [0.1, e, e / 2],
    }));
    const scatterOf = (cv: number): number => {
      const jobs = Array.from({ length: 25 }, (): Teaching => {
        const heat = sources.map(() => Math.exp(logSd(cv) * normalDraw(random)));
        const change = [0, 1, 2].map(
          (r) => sources.reduce((s, x, b) => s + (heat[b] ?? 1) * (x.effect[r] ?? 0), 0) + 0.02 * normalDraw(random),
        );
        return { sources, change, noise: { u: [0.02, 0.02, 0.02] } };
      });
      return learnScatter(prior(), jobs, { ...USUAL_SCATTER, modelShare: 0, modelMm: 0.01 }).beadCv;
    };
    const [small, large] = [scatterOf(0.12), scatterOf(0.4)];
    expect(small).toBeLessThan(0.18);
    expect(large).toBeGreaterThan(0.3);
  });
});

describe("a job that does not fit", () => {
  const job = frame();
  const belief = believed({ muT: 0.12, tack: 0.2 });
  const told = expected(belief, job);
  const noise = { u: told.mean.map(() => 0.1) };
  it("names heat that was another, and a reading that was misread, and not the other way round", () => {
    fc.assert(
      fc.property(fc.constantFrom(0, 1, 2, 3), fc.constantFrom(-6, 6, 10), (reading, slip) => {
        const misread = told.mean.map((m, i) => m + (i === reading ? slip : 0));
        const found = surprise(belief, { ...job, change: misread, noise });
        expect(found.cause).toBe("one reading");
        expect(found.reading).toBe(reading);
        expect(found.slipMm).toBeCloseTo(slip, 0);
      }),
    );
    const hot = surprise(belief, { ...job, change: told.mean.map((m) => 3 * m), noise });
    expect(hot.cause).toBe("all heat by a factor");
    expect(hot.heatFactor).toBeGreaterThan(2);
    expect(surprise(belief, { ...job, change: told.mean, noise }).cause).toBe("fits");
  });
});
