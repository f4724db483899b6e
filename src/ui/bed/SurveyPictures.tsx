"use client";

import { useEffect, useMemo, useState } from "react";
import { flatness, type Scatter } from "@/core/geometry";
import { type BedRound, surveyReadingWords, surveyWords } from "@/core/job";
import { fixed, formatSmall } from "@/core/units";
import { Scatters } from "@/workers/scatters";
import { useJob } from "../job/JobProvider";
import { FitTable } from "../measure/FitTable";
import { Choice } from "../parts/Choice";
import { SelectField } from "../parts/SelectField";
import { Section } from "../parts/Sheet";
import { ContourMap, type MapPoint } from "./ContourMap";
import { ProfileChart } from "./ProfileChart";

/** Lines of three points or more, longest first. */
function linesOf(points: readonly MapPoint[]): MapPoint[][] {
  const found: MapPoint[][] = [];
  const known = new Set<string>();
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++) {
      const [a, b] = [points[i] as MapPoint, points[j] as MapPoint];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      if (length === 0) continue;
      const off = (p: MapPoint): number => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length;
      const along = (p: MapPoint): number => ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / length;
      const line = points.filter((p) => off(p) < 1 + 0.002 * length).sort((p, q) => along(p) - along(q));
      const name = line.map((p) => p.id).join(" ");
      if (line.length < 3 || known.has(name)) continue;
      known.add(name);
      found.push(line);
    }
  return found.sort((a, b) => b.length - a.length).slice(0, 24);
}

/** Scatter of a flatness, and of what a perfect bed would read. */
interface Noise {
  scatter: Scatter;
  floor: Scatter;
}

/** Scatter of the flatness by Monte Carlo, worked out beside the page; null until it is there. */
function useScatter(round: BedRound, points: readonly MapPoint[]): Noise | null | "failed" {
  const [found, setFound] = useState<{ of: BedRound; noise: Noise } | "failed" | null>(null);
  const [worker, setWorker] = useState<Scatters | null>(null);
  // One worker for all rounds that are looked at: the second is answered by a warm one.
  useEffect(() => {
    const own = new Scatters(() => setFound("failed"));
    setWorker(own);
    return () => own.end();
  }, []);
  useEffect(() => {
    const { survey } = round;
    if (!worker || (survey.status !== "ok" && survey.status !== "ok_no_check") || points.length < 4) return;
    let wanted = true;
    const order = points.map((p) => survey.points.indexOf(p.id));
    const cov = order.map((i) => order.map((j) => (survey.cov[i] as number[])[j] as number));
    const z = points.map((p) => p.z);
    Promise.all([worker.scatter(points, z, cov), worker.floor(points, cov)])
      .then(([scatter, floor]) => wanted && setFound({ of: round, noise: { scatter, floor } }))
      .catch(() => wanted && setFound("failed"));
    return () => {
      wanted = false;
    };
  }, [worker, round, points]);
  return found === "failed" ? "failed" : found?.of === round ? found.noise : null;
}

function Band({ round, points }: { round: BedRound; points: readonly MapPoint[] }) {
  const { units } = useJob("units");
  const noise = useScatter(round, points);
  const { flatness: flat } = round.verdict;
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  if (flat.zoneMm === null || flat.uZoneMm === null) return null;
  return (
    <p className="max-w-prose" data-testid="scatter">
      Out of flat{" "}
      <span className="fig font-semibold text-brass">
        {small(flat.zoneMm)} ± {small(2 * flat.uZoneMm)}
      </span>
      , decided by {flat.active.map((i) => points[i]?.id).join(", ")}; about its least-squares plane{" "}
      {small(flat.leastSquaresMm ?? 0)}.{" "}
      {noise === null ? (
        "Trying it with the readings' noise …"
      ) : noise === "failed" ? (
        "Its noise could not be tried on this device."
      ) : (
        <>
          With the noise of the readings tried 2000 times it reads {small(noise.scatter.mean)} on average, below{" "}
          {small(noise.scatter.q95)} nineteen times in twenty; a perfectly flat bed would read {small(noise.floor.mean)}
          . Noise only ever adds: a pass is safe, a fail near the limit may be noise.
        </>
      )}
    </p>
  );
}

/** What a survey of the bed looks like, and how its readings fit. */
export default function SurveyPictures({ round }: { round: BedRound }) {
  const { job } = useJob("job");
  const { units, bed } = job.plan;
  const { survey } = round;
  const [against, setAgainst] = useState<"own plane" | "level">("own plane");
  const [shown, setShown] = useState<string>("");
  const fit = survey.status === "ok" || survey.status === "ok_no_check" ? survey : null;
  const points = useMemo(
    () =>
      fit
        ? bed.rests.flatMap((r): MapPoint[] => {
            const z = fit.zMm[r.id];
            return z === undefined ? [] : [{ id: r.id, x: r.x.mm, y: r.y.mm, z }];
          })
        : [],
    [fit, bed.rests],
  );
  const lines = useMemo(() => linesOf(points), [points]);
  const flat = useMemo(
    () =>
      flatness(
        points,
        points.map((p) => p.z),
        1,
      ),
    [points],
  );
  if (!fit || points.length < 3) return null;
  const said = surveyWords(round, units);
  const line = lines.find((l) => l.map((p) => p.id).join(" ") === shown) ?? lines[0];
  const u = (a: MapPoint, b: MapPoint): number => {
    const [i, j] = [fit.points.indexOf(a.id), fit.points.indexOf(b.id)];
    const c = (p: number, q: number): number => (fit.cov[p] as number[])[q] as number;
    return Math.sqrt(Math.max(0, c(i, i) + c(j, j) - 2 * c(i, j)));
  };
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2, signed: true });
  return (
    <>
      <Section title="The bed from above" aside={<span className="text-sm text-soft">{points.length} points</span>}>
        {flat.status === "collinear" ? (
          <p>The points lie on one line: only its profile can be drawn.</p>
        ) : (
          <>
            <ContourMap points={points} against={fit.levelKnown ? against : "own plane"} units={units} />
            {fit.levelKnown ? (
              <Choice
                label="Heights against"
                value={against}
                options={[
                  ["own plane", "its own plane (flat)"],
                  ["level", "level"],
                ]}
                onChange={setAgainst}
              />
            ) : (
              <p className="text-sm text-soft">How it slopes these readings do not say.</p>
            )}
            <div className="mt-3">
              <Band round={round} points={points} />
            </div>
          </>
        )}
      </Section>
      {line ? (
        <Section title="Profile">
          <ProfileChart points={line} uMm={line.map((p) => u(p, line[0] as MapPoint))} units={units} />
          {lines.length > 1 ? (
            <SelectField
              label="Along"
              value={line.map((p) => p.id).join(" ")}
              options={lines.map((l) => {
                const name = l.map((p) => p.id).join(" ");
                return [name, name] as const;
              })}
              onChange={setShown}
            />
          ) : null}
        </Section>
      ) : null}
      <Section title="How the readings fit">
        <p className={`max-w-prose ${said.wrong ? "text-close" : ""}`} data-testid="survey-words">
          {said.say}
        </p>
        {Object.entries(fit.errors)
          .filter(([, e]) => e.uMmPerM > 1e-6)
          .map(([id, e]) => (
            <p key={id} className="mt-1 text-sm text-soft">
              {job.instruments.find((i) => i.id === id)?.name}: these readings put its own error at{" "}
              <span className="fig">
                {fixed(e.mmPerM, 2)} ± {fixed(2 * e.uMmPerM, 2)} mm/m
              </span>
              .
            </p>
          ))}
        {fit.freedom > 0 ? (
          <FitTable
            rows={fit.readings.map((r) => ({
              id: r.id,
              name: surveyReadingWords(round, r.id),
              residual: small(r.residualMm),
              w: r.controlled ? r.w : null,
              detectable: formatSmall(r.detectableMm, units, { decimals: 1 }),
            }))}
          />
        ) : null}
      </Section>
    </>
  );
}
