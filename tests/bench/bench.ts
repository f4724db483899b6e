// Measures what a person waits for, on the production build, all in one run: npm run bench
import { performance } from "node:perf_hooks";
import { type Browser, type BrowserContext, type BrowserContextOptions, chromium, type Page } from "@playwright/test";
import autocannon from "autocannon";
import { v4 as uuid } from "uuid";
import { SHELF } from "../../src/core/instruments";
import { type Entry, type Job, newPlan, restsGrid, spanId } from "../../src/core/job";
import { length } from "../../src/core/units";
import { writeJobFile } from "../../src/formats/jobFile";
import { startApp } from "../support/app";
import { largeFrame } from "../support/largeFrame";
import { withDrawn } from "../support/plans";

const STAGES = ["", "/frame", "/cut", "/bed", "/layout", "/square", "/weld", "/check", "/log"];
const row = (name: string, value: string, target = ""): void =>
  console.log(`${name.padEnd(46)} ${value.padStart(14)}  ${target}`);
const ms = (x: number): string => `${x.toFixed(0)} ms`;
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? Number.NaN;

/** A browser whose pages come to rest: without the stream that stays open, and without what is kept for later. */
async function quietContext(browser: Browser, options: BrowserContextOptions = {}): Promise<BrowserContext> {
  const context = await browser.newContext({ serviceWorkers: "block", ...options });
  await context.route("**/stream?*", (route) => route.fulfill({ status: 204 }));
  return context;
}

/** Bytes over the wire by kind, with an empty cache. */
async function weigh(
  context: BrowserContext,
  url: string,
): Promise<{ js: number; worker: number; css: number; font: number; html: number }> {
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send("Network.enable");
  await session.send("Network.setCacheDisabled", { cacheDisabled: true });
  const kinds = new Map<string, string>();
  const bytes = { js: 0, worker: 0, css: 0, font: 0, html: 0 };
  session.on("Network.responseReceived", (e) => kinds.set(e.requestId, e.type));
  session.on("Network.loadingFinished", (e) => {
    const kind = { Script: "js", Stylesheet: "css", Font: "font", Document: "html" }[kinds.get(e.requestId) ?? ""] as
      | keyof typeof bytes
      | undefined;
    if (kind) bytes[kind] += e.encodedDataLength;
  });
  await page.goto(url, { waitUntil: "networkidle" });
  // Scripts that the page itself ran; the rest went to the worker, after the page was live.
  const own = await page.evaluate(() =>
    (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
      .filter((r) => r.name.endsWith(".js"))
      .reduce((sum, r) => sum + r.transferSize, 0),
  );
  await page.close();
  return { ...bytes, js: own, worker: Math.max(0, bytes.js - own) };
}

/** Largest contentful paint, and the time until the screen answers (its save mark is live). */
async function usable(page: Page, url: string): Promise<{ lcp: number; live: number }> {
  await page.goto(url, { waitUntil: "load" });
  const live = await page.evaluate(async () => {
    while (!Object.keys(document.querySelector("main") ?? {}).some((k) => k.startsWith("__reactFiber")))
      await new Promise((r) => requestAnimationFrame(r));
    return performance.now();
  });
  const lcp = await page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        new PerformanceObserver((list) => resolve(list.getEntries().at(-1)?.startTime ?? Number.NaN)).observe({
          type: "largest-contentful-paint",
          buffered: true,
        });
        setTimeout(() => resolve(Number.NaN), 3000);
      }),
  );
  return { lcp, live };
}

/** Longest answer to a key or a tap while a round is read on the square screen (event timing, as INP counts it). */
async function interaction(page: Page, url: string): Promise<number> {
  await page.goto(`${url}?round=new`, { waitUntil: "networkidle" });
  await page.evaluate(() => {
    const w = window as unknown as { longest: number };
    w.longest = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries())
        if ((e as PerformanceEventTiming).interactionId > 0) w.longest = Math.max(w.longest, e.duration);
    }).observe({ type: "event", buffered: true, durationThreshold: 16 } as PerformanceObserverInit);
  });
  await page.locator("form input").first().click();
  for (const value of ["1200.5", "800.5", "1200.5", "800.5", "1443", "1442.5"]) {
    await page.keyboard.type(value, { delay: 30 });
    await page.keyboard.press("Enter");
    await page.waitForTimeout(150);
  }
  await page.waitForTimeout(500);
  return page.evaluate(() => (window as unknown as { longest: number }).longest);
}

/** What a person sees of one reading on a screen that reads: keys answered within one frame, and time until it says stored. */
async function acknowledged(page: Page, url: string): Promise<{ keys: number; late: number; storedMs: number[] }> {
  const all = { keys: 0, late: 0, storedMs: [] as number[] };
  for (let round = 0; round < 4; round++) {
    await page.goto(`${url}?round=new`, { waitUntil: "networkidle" });
    await page.waitForTimeout(500);
    // As text: what a compiler adds to a named function is not there in the page.
    await page.evaluate(`
      window.late = 0;
      window.stored = [];
      window.typed = new Set();
      window.since = null;
      window.seen = false;
      new PerformanceObserver((list) => {
        for (const e of list.getEntries())
          if (e.name === "keydown" && e.duration > 24 && window.typed.has(Math.round(e.startTime))) window.late++;
      }).observe({ type: "event", durationThreshold: 16 });
      addEventListener("keydown", (e) => {
        if (e.key.length === 1) window.typed.add(Math.round(e.timeStamp));
        if (e.key === "Enter") { window.since = performance.now(); window.seen = false; }
      }, true);
      new MutationObserver(() => {
        if (window.since === null) return;
        if (!document.querySelector("[data-save=saved]")) window.seen = true;
        else if (window.seen) { window.stored.push(performance.now() - window.since); window.since = null; }
      }).observe(document.body, { subtree: true, childList: true, attributes: true, attributeFilter: ["data-save"] });
    `);
    await page.locator("form input").first().click();
    for (const value of ["1200.5", "800.5", "1200.5", "800.5", "1443", "1442.5"]) {
      await page.keyboard.type(value, { delay: 40 });
      all.keys += value.length;
      await page.waitForTimeout(100);
      await page.keyboard.press("Enter");
      await page.waitForTimeout(400);
    }
    const { late, stored } = (await page.evaluate("({ late: window.late, stored: window.stored })")) as {
      late: number;
      stored: number[];
    };
    all.late += late;
    all.storedMs.push(...stored);
  }
  return all;
}

/** A job whose bed of forty points is read, every one by heights and by steps of a level. @returns its address. */
async function surveyedJob(address: string): Promise<string> {
  const plan = newPlan("Bench, 40 points", "mm");
  const rests = restsGrid({ lengthMm: 2100, widthMm: 1200 }, 8, 5, "mm");
  const base = () => ({ id: uuid(), at: new Date().toISOString(), origin: "bench" });
  const round = { kind: "round" as const, ...base(), gate: "bed" as const, method: "heights" as const };
  const entries: Entry[] = [round];
  rests.forEach((rest, i) => {
    const reading = { kind: "reading" as const, roundId: round.id, what: { kind: "rest" as const, rest: rest.id } };
    const mm = Math.round(100 * Math.sin(i)) / 250;
    entries.push({ ...reading, ...base(), instrumentId: "height-gauge", value: length(String(mm)) });
    const before = rests[i - 1];
    if (before)
      entries.push({
        ...reading,
        ...base(),
        instrumentId: "spirit-level",
        how: { by: "slope", from: before.id, arrow: "on" },
        value: { value: 0.1 * (i % 3), text: String(0.1 * (i % 3)), slant: "mm/m" },
      });
  });
  const job: Job = {
    id: uuid(),
    createdAt: new Date().toISOString(),
    version: 1,
    plan: { ...plan, bed: { ...plan.bed, rests } },
    instruments: SHELF.filter((i) => ["height-gauge", "spirit-level"].includes(i.id)),
    entries,
  };
  const answer = await fetch(`${address}/api/jobs/file?origin=bench`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: writeJobFile(job),
  });
  const body = (await answer.json()) as { id?: string; message?: string };
  if (!body.id) throw new Error(body.message);
  return `${address}/jobs/${body.id}`;
}

/** Times from the question to the band on the screen, ms: first with the worker's start, then of a warm one. */
async function banded(page: Page, url: string): Promise<number[]> {
  await page.addInitScript(`
    window.bands = [];
    let asked = null;
    new MutationObserver(() => {
      const text = document.querySelector("[data-testid=scatter]")?.textContent ?? "";
      if (text.includes("Trying it")) asked ??= performance.now();
      else if (text.includes("tried 2000 times") && asked !== null) {
        window.bands.push(performance.now() - asked);
        asked = null;
      }
    }).observe(document, { subtree: true, childList: true, characterData: true });
  `);
  await page.goto(`${url}/bed`, { waitUntil: "networkidle" });
  await page.mouse.move(500, 500);
  for (let turn = 0; turn < 60 && !(await page.getByText("tried 2000 times").isVisible()); turn++) {
    await page.mouse.wheel(0, 400);
    await page.waitForTimeout(150);
  }
  for (let again = 1; again <= 3; again++) {
    await page.waitForFunction((n) => (window as unknown as { bands: number[] }).bands.length >= n, again, {
      timeout: 20_000,
    });
    if (again === 3) break;
    await page.getByRole("list", { name: "Readings of this round" }).getByRole("button").first().click();
    await page.locator("form input").first().fill(`0.${again}`);
    await page.keyboard.press("Enter");
  }
  return page.evaluate("window.bands") as Promise<number[]>;
}

/** A job with a drawn frame of so many members. @returns its address. */
async function drawnJob(address: string, members: number): Promise<string> {
  const plan = withDrawn(newPlan(`Bench, ${members} members`, "mm"), largeFrame(members));
  const job: Job = { id: uuid(), createdAt: new Date().toISOString(), version: 1, plan, instruments: [], entries: [] };
  const answer = await fetch(`${address}/api/jobs/file?origin=bench`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: writeJobFile(job),
  });
  const { id } = (await answer.json()) as { id: string };
  return `${address}/jobs/${id}`;
}

/** Frames that the screen makes while a member is drawn along: 16.7 ms each when the hand is followed at once. */
async function dragged(page: Page, url: string): Promise<number[]> {
  await page.goto(`${url}/frame`, { waitUntil: "networkidle" });
  const box = await page.getByRole("button", { name: /^Member K1,/ }).boundingBox();
  if (!box) throw new Error("no member to drag");
  const [x, y] = [box.x + box.width / 3, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  // As text: what a compiler adds to a named function is not there in the page.
  await page.evaluate(`
    window.frames = [];
    let last = performance.now();
    requestAnimationFrame(function tick(now) {
      window.frames.push(now - last);
      last = now;
      requestAnimationFrame(tick);
    });
  `);
  for (let i = 1; i <= 90; i++) {
    await page.mouse.move(x, y + (i % 30));
    await page.waitForTimeout(10);
  }
  const frames = await page.evaluate(() => (window as unknown as { frames: number[] }).frames.slice(5));
  await page.mouse.up();
  return frames;
}

async function readingsPerSecond(address: string, jobId: string, connections: number) {
  const roundId = uuid();
  const at = new Date().toISOString();
  const headers = { "content-type": "application/json" };
  const post = (body: unknown) =>
    fetch(`${address}/api/jobs/${jobId}/entries`, { method: "POST", headers, body: JSON.stringify(body) });
  await post({
    since: 0,
    entries: [{ kind: "round", id: roundId, at, origin: "bench", gate: "dry fit", method: "heights" }],
  });
  return autocannon({
    url: `${address}/api/jobs/${jobId}/entries`,
    method: "POST",
    headers,
    connections,
    duration: 6,
    setupClient: (client) => {
      const next = () =>
        client.setBody(
          JSON.stringify({
            since: 1e6,
            entries: [
              {
                kind: "reading",
                id: uuid(),
                at,
                origin: "bench",
                roundId,
                instrumentId: "rule",
                what: spanId("AB"),
                value: length("1200.5"),
              },
            ],
          }),
        );
      next();
      client.on("response", next);
    },
  });
}

console.log("Mellow Plumb, production build, loopback, this machine\n");
let t = performance.now();
const app = await startApp();
row("cold start (new data, migrate, demo, serve)", ms(performance.now() - t));
await app.kill();
t = performance.now();
await app.start();
row("warm start (server answers)", ms(performance.now() - t));

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", chromiumSandbox: false });
const { jobs } = (await (await fetch(`${app.address}/api/jobs`)).json()) as { jobs: { id: string; name: string }[] };
const cart = jobs.find((j) => j.name === "Ware cart base");
const job = `${app.address}/jobs/${cart?.id}`;

console.log("\npage weight, empty cache, over the wire (kB)         js   worker      css     font     html");
for (const path of ["/", ...STAGES.map((s) => `/jobs/…${s}`)]) {
  const context = await quietContext(browser);
  const b = await weigh(context, path === "/" ? app.address : job + path.slice(7));
  console.log(
    `${path.padEnd(42)} ${[b.js, b.worker, b.css, b.font, b.html].map((x) => (x / 1000).toFixed(0).padStart(8)).join(" ")}${path.endsWith("/square") ? "   target: js under 250" : ""}`,
  );
  await context.close();
}

console.log(
  "\ntime to a usable screen, empty cache, median of 5                 (target LCP under 1000 ms, INP under 100 ms)",
);
for (const stage of STAGES) {
  const runs: { lcp: number; live: number }[] = [];
  for (let i = 0; i < 5; i++) {
    const context = await quietContext(browser);
    runs.push(await usable(await context.newPage(), job + stage));
    await context.close();
  }
  row(
    `/jobs/…${stage}`,
    `LCP ${ms(median(runs.map((r) => r.lcp)))}`,
    `live after ${ms(median(runs.map((r) => r.live)))}`,
  );
}
const page = await (await quietContext(browser)).newPage();
row("square: longest answer to a key (INP)", ms(await interaction(page, `${job}/square`)), "target under 100 ms");
const stored = await acknowledged(page, `${job}/square`);
row(
  "square: a reading is said to be stored",
  ms(median(stored.storedMs)),
  `median of ${stored.storedMs.length}, from Enter to the mark; target under 100 ms`,
);
row(
  "square: keys answered within one frame",
  `${stored.keys - stored.late} of ${stored.keys}`,
  "painted by the next frame: at most 24 ms from key to paint, in steps of 8",
);
const surveyed = await surveyedJob(app.address);
const bands: number[][] = [];
for (let i = 0; i < 5; i++) {
  const context = await quietContext(browser, { viewport: { width: 1280, height: 800 } });
  bands.push(await banded(await context.newPage(), surveyed));
  await context.close();
}
row(
  "bed of 40 points: band by 2000 draws, on screen",
  ms(median(bands.map((b) => b.at(-1) ?? Number.NaN))),
  `from question to text; target 300 ms; the first, with the worker's start, ${ms(median(bands.map((b) => b[0] ?? Number.NaN)))}`,
);
const sixty = await drawnJob(app.address, 60);
const frames = (await dragged(page, sixty)).sort((a, b) => a - b);
row(
  "frame of 60 members: a frame while dragging",
  ms(median(frames)),
  `19 in 20 under ${ms(frames[Math.floor(0.95 * frames.length)] ?? 0)}; target 16 ms of work a move`,
);
const large = await drawnJob(app.address, 200);
const opened: { lcp: number; live: number }[] = [];
for (let i = 0; i < 5; i++) {
  const context = await quietContext(browser);
  const settled = await context.newPage();
  // A browser that is only just up is slow at everything: it gets a moment first, its cache stays empty.
  await settled.waitForTimeout(1500);
  opened.push(await usable(settled, `${large}/frame`));
  await context.close();
}
row(
  "frame of 200 members: opened, median of 5",
  `LCP ${ms(median(opened.map((o) => o.lcp)))}`,
  `live after ${ms(median(opened.map((o) => o.live)))}; target under 1000 ms, empty cache`,
);
await browser.close();

console.log("\nreadings route, 6 s each, one job");
for (const connections of [1, 4, 10]) {
  const { id } = (await (
    await fetch(`${app.address}/api/jobs`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ name: `Bench ${connections}`, units: "mm", origin: "bench" }),
    })
  ).json()) as { id: string };
  const r = await readingsPerSecond(app.address, id, connections);
  row(
    `${connections} writers`,
    `${r.requests.average.toFixed(0)} /s`,
    `median ${r.latency.p50} ms, p99 ${r.latency.p99} ms, errors ${r.errors + r.non2xx}`,
  );
}
await app.end();
