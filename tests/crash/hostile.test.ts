import fc from "fast-check";
import { v4 as uuid } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { newPlan, spanId } from "@/core/job";
import { length } from "@/core/units";
import { type App, startApp } from "../support/app";

/** Requests; a long run asks for more by HOSTILE=5000. */
const REQUESTS = Number(process.env.HOSTILE ?? 800);
const AT_ONCE = 6;
/** What has not answered by then hangs, ms: how fast it answers is for the benches. */
const HANGS_MS = 60_000;
const at = "2026-11-24T08:00:00.000Z";

let app: App;
let jobId = "";
beforeAll(async () => {
  app = await startApp(["--innodb-flush-log-at-trx-commit=0"]);
  const answer = await fetch(`${app.address}/api/jobs`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ name: "Hostile", units: "mm", origin: "test" }),
  });
  jobId = ((await answer.json()) as { id: string }).id;
}, 300_000);
afterAll(async () => {
  await app?.end();
});

const roundId = uuid();
/** Bodies that would be taken, route by route: what is hostile is near them. */
const good = (): Record<string, [method: string, body: unknown]> => ({
  "/api/jobs": ["POST", { name: "x", units: "mm", origin: "x" }],
  [`/api/jobs/${jobId}/plan`]: ["PUT", { baseVersion: 1, plan: newPlan("x", "mm"), origin: "x" }],
  [`/api/jobs/${jobId}/away`]: ["PUT", { away: false }],
  [`/api/jobs/${jobId}/entries`]: [
    "POST",
    {
      since: 0,
      sentAt: at,
      entries: [
        { kind: "round", id: roundId, at, origin: "x", gate: "dry fit", method: "heights" },
        {
          ...{ kind: "reading", id: uuid(), at, origin: "x", roundId, instrumentId: "rule", what: spanId("AB") },
          value: length("1000"),
        },
      ],
    },
  ],
  "/api/instruments": [
    "POST",
    { name: "x", kind: "tape", resolutionMm: 1, handlingMm: 0.2, zeroMm: 0.2, scaleMmPerM: 0.1 },
  ],
  "/api/instruments/rule/away": ["PUT", { away: false }],
  "/api/test-beads": [
    "POST",
    {
      ...{ id: uuid(), at, origin: "x", process: "MAG", volts: 18, amps: 120, travelMmPerS: 5, wallMm: 3 },
      ...{ material: "mild steel", seam: "fillet", position: "flat", result: "keep", note: "" },
    },
  ],
  "/api/lessons": [
    "POST",
    {
      ...{ kind: "coupon", id: uuid(), at, origin: "x", process: "MAG", volts: 18, amps: 120, travelMmPerS: 5 },
      ...{ material: "mild steel", wallMm: 3, beforeMm: 100, afterMm: 99.6, uMm: 0.06, coupon: { of: "butt" } },
    },
  ],
  "/api/lessons/file": ["POST", { format: "mellow-plumb-lessons", formatVersion: 1, shop: {}, lessons: [] }],
  [`/api/jobs/${jobId}/lesson`]: ["POST", { origin: "x", anyway: true }],
  [`/api/jobs/${jobId}/layout?as=pdf&paper=A0&bar=0`]: ["GET", {}],
  [`/api/jobs/${jobId}/sheet?name=%00&paper=`]: ["GET", {}],
  [`/api/jobs/${jobId}/table?of=%00`]: ["GET", {}],
  [`/api/jobs/${jobId}/body?as=%00`]: ["GET", {}],
  "/api/jobs/file?copy=1&origin=x": ["POST", { format: "mellow-plumb-job", formatVersion: 2, job: {} }],
  "/api/shop?lessons=1&origin=x": ["POST", { format: "mellow-plumb-shop", formatVersion: 1, shop: {}, jobs: [] }],
  "/api/sign-in": ["POST", { name: "x", password: "y" }],
  "/api/join": ["POST", { code: "0123456789", password: null }],
  "/api/sign-out": ["POST", {}],
  "/api/people": ["POST", { name: "x", role: "welder" }],
  [`/api/people/${uuid()}`]: ["PUT", { do: "leave" }],
  [`/api/devices/${uuid()}`]: ["DELETE", {}],
  "/api/devices": ["POST", {}],
  "/api/password": ["PUT", { old: null, password: "0123456789ab" }],
});

/** Places inside a body, as paths. */
const places = (value: unknown, path: (string | number)[] = []): (string | number)[][] => [
  path,
  ...(typeof value === "object" && value !== null
    ? Object.entries(value).flatMap(([k, v]) => places(v, [...path, k]))
    : []),
];
function put(value: unknown, path: readonly (string | number)[], what: unknown): unknown {
  const [first, ...rest] = path;
  if (first === undefined) return what;
  const copy: Record<string, unknown> | unknown[] = Array.isArray(value) ? [...value] : { ...(value as object) };
  (copy as Record<string, unknown>)[first] = put((copy as Record<string, unknown>)[first], rest, what);
  return copy;
}

const nasty = fc.oneof(
  fc.jsonValue({ maxDepth: 4 }),
  fc.constantFrom<unknown>(
    ...["", "\u202e", "\u0000", "'; DROP TABLE job; --", "=1+1", "../../etc/passwd", "\ud800", "x".repeat(100_000)],
    ...[-1, 0, 1e308, -1e308, 2 ** 53, 0.1, null, true, [], {}, [[]], { __proto__: null, constructor: 1 }],
    ...["9999-12-31T23:59:59.999Z", "0000-01-01T00:00:00.000Z", "1e309", "NaN", "<script>"],
  ),
  fc.integer({ min: 1, max: 4000 }).map((n) => Array.from({ length: n }, () => 0)),
);
const headers = fc.constantFrom<Record<string, string>>(
  { "content-type": "application/json" },
  { "content-type": "application/json; charset=utf-16" },
  { "content-type": "text/plain" },
  { "content-type": "application/json", origin: "https://elsewhere.test" },
  { "content-type": "application/json", cookie: "__Host-plumb=%00; a=b=c;;;" },
  {},
);

describe("what nobody should send", () => {
  it("is refused on every route, and never breaks or hangs the program", { timeout: 900_000 }, async () => {
    const routes = Object.entries(good());
    const asks = fc.sample(
      fc.record({
        route: fc.nat(routes.length - 1),
        method: fc.constantFrom(null, null, null, null, "GET", "PUT", "POST", "DELETE", "PATCH"),
        where: fc.nat(1000),
        what: nasty,
        cut: fc.constantFrom(1, 1, 1, 1, 0.5, 0),
        headers,
      }),
      { numRuns: REQUESTS, seed: 20261129 },
    );
    const wrong: string[] = [];
    let slowest = 0;
    const statuses = new Map<number, number>();
    const one = async (ask: (typeof asks)[number]): Promise<void> => {
      const [path, [usual, body]] = routes[ask.route] as (typeof routes)[number];
      const spots = places(body);
      const text = JSON.stringify(put(body, spots[ask.where % spots.length] ?? [], ask.what)) ?? "";
      const method = ask.method ?? usual;
      const from = performance.now();
      const answer = await fetch(`${app.address}${path}`, {
        method,
        headers: ask.headers,
        signal: AbortSignal.timeout(HANGS_MS),
        ...(method === "GET" ? {} : { body: text.slice(0, Math.floor(text.length * ask.cut)) }),
      });
      await answer.text();
      slowest = Math.max(slowest, performance.now() - from);
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
      if (answer.status >= 500) wrong.push(`${answer.status} ${method} ${path} ${text.slice(0, 300)}`);
    };
    const rest = [...asks];
    const work = async (): Promise<void> => {
      for (let ask = rest.pop(); ask; ask = rest.pop()) await one(ask);
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
    expect(wrong).toEqual([]);
    // Most is refused, and the record still opens.
    expect(statuses.get(422) ?? 0).toBeGreaterThan(REQUESTS / 10);
    const job = await fetch(`${app.address}/api/jobs/${jobId}`);
    expect(job.status).toBe(200);
    console.log(`${REQUESTS} requests, the slowest ${slowest.toFixed(0)} ms:`, Object.fromEntries(statuses));
  });
});
