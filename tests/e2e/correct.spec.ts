import type { Page } from "@playwright/test";
import { v4 as uuid } from "uuid";
import { resolveStructure } from "../../src/core/frame";
import { type Entry, type Job, newPlan, spanId } from "../../src/core/job";
import { placesOf } from "../../src/core/square";
import { length } from "../../src/core/units";
import { writeJobFile } from "../../src/formats/jobFile";
import { deckWithPole } from "../support/drawnFrames";
import { coldAt, placesMoved } from "../support/placesRead";
import { drawnPlan } from "../support/plans";
import { BENCH, expect, expectAccessible, read, saved, test } from "./fixtures";

const DIAGONAL = Math.hypot(900, 500);

/** A stand of 900 by 500 that was read square before it was welded, and is to be read cold. */
async function welded(
  page: Page,
  address: string,
  name: string,
  units: "mm" | "inch-fraction" = "mm",
  levelMmPerM: number | null = null,
): Promise<string> {
  const fresh = newPlan(name, units);
  const plan = { ...fresh, limits: { ...fresh.limits, levelMmPerM } };
  const sizes = { ...plan.frame.sizes, length: length("900"), width: length("500"), cross: [] };
  let minute = 0;
  const at = (): string => new Date(Date.UTC(2026, 10, 24, 8, minute++)).toISOString();
  const roundId = uuid();
  const before = { AB: 900, BC: 500, CD: 900, DA: 500, AC: DIAGONAL, BD: DIAGONAL };
  const entries: Entry[] = [
    { kind: "round", id: roundId, at: at(), origin: "Odo, bench", gate: "tacked", method: "heights" },
    ...Object.entries(before).map(
      ([span, mm]): Entry => ({
        ...{ kind: "reading", id: uuid(), at: at(), origin: "Odo, bench", roundId, instrumentId: "tape-100" },
        what: spanId(span as "AB"),
        value: length(mm.toFixed(1)),
      }),
    ),
  ];
  const job: Job = {
    id: uuid(),
    createdAt: at(),
    version: 1,
    plan: { ...plan, frame: { by: "sizes", sizes }, finish: "paint" },
    instruments: [],
    entries,
  };
  // The shelf of the job names what it was read with.
  const shelf = (await (await page.request.get(`${address}/api/instruments`)).json()) as Job["instruments"];
  const answer = await page.request.post(`${address}/api/jobs/file?origin=test`, {
    data: writeJobFile({ ...job, instruments: shelf.filter((i) => i.id === "tape-100") }),
    headers: { "content-type": "application/json" },
  });
  expect(answer.status(), await answer.text()).toBe(200);
  return `/jobs/${job.id}`;
}

/** Reads a cold round: sides as they should be, diagonals apart by so much, all corners level. */
async function readCold(page: Page, apart: number): Promise<void> {
  await read(page, {
    ...{ AB: "899.5", BC: "499.5", CD: "899.5", DA: "499.5" },
    ...{ AC: (DIAGONAL + apart / 2).toFixed(1), BD: (DIAGONAL - apart / 2).toFixed(1) },
    ...{ zA: "0", zB: "0", zC: "0", zD: "0" },
  });
}

test("a racked frame is pushed a little, read, pushed further, until it is inside; what was done stands in the log", async ({
  page,
  address,
}) => {
  const job = await welded(page, address, "Racked stand");
  await page.goto(`${address}${job}/check`);
  await readCold(page, 6);
  const correct = page.getByTestId("correct");
  await expect(page.getByTestId("now")).toContainText("Outside its limit");
  await expect(correct).toContainText("Pull the long diagonal AC in", { timeout: 300_000 });
  await expect(correct).toContainText(/As it is, all limits that were read are kept hardly ever/);
  const go = page.getByTestId("go-rack");
  await expect(go).toContainText(/First, draw AC in by [\d.]+\smm beyond where it stands/);
  await expect(go).toContainText(/kN/);
  const amount = go.getByLabel(/Pushed by/);
  const first = Number.parseFloat(await amount.inputValue());
  expect(first).toBeGreaterThan(3);
  await expectAccessible(page);
  // Nonsense is said at the field, and kept.
  await amount.fill("a bit");
  await expect(go.getByText(/Cannot read/)).toBeVisible();
  await amount.fill(String(first));
  await go.getByRole("button", { name: "Done: read it again" }).click();
  await expect(correct).toContainText("Read the frame again, in a new round");
  await page.getByRole("button", { name: "New round" }).click();
  await readCold(page, 6);
  await expect(page.getByTestId("go-rack")).toContainText(/Next, draw AC in by/, { timeout: 300_000 });
  const next = Number.parseFloat(
    await page
      .getByTestId("go-rack")
      .getByLabel(/Pushed by/)
      .inputValue(),
  );
  // Nothing stayed: the next push goes further.
  expect(next).toBeGreaterThan(first);
  await page.getByTestId("go-rack").getByRole("button", { name: "Done: read it again" }).click();
  await page.getByRole("button", { name: "New round" }).click();
  await readCold(page, 0.4);
  await expect(page.getByTestId("now")).toContainText("Every limit is met");
  await expect(page.getByTestId("correct")).toHaveCount(0);
  await saved(page);
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText(/Corrected: Pull the long diagonal AC in, past yield, by/)).toHaveCount(2);
});

test("a frame that is straight and stands out of level is shimmed, foot by foot, and only its level is read again", async ({
  page,
  address,
}) => {
  const job = await welded(page, address, "Tilted stand", "mm", 1);
  await page.goto(`${address}${job}/check`);
  await readCold(page, 0.2);
  const slope = async (member: string, mmPerM: string): Promise<void> => {
    await page.getByRole("button", { name: new RegExp(`^level ${member}`) }).click();
    await page.locator("form input").first().fill(mmPerM);
    await page.getByRole("button", { name: `Keep level ${member}` }).click();
  };
  await slope("AB", "4");
  await slope("DA", "-3");
  const correct = page.getByTestId("correct");
  await expect(correct).toContainText("Shims under its feet", { timeout: 300_000 });
  const go = page.getByTestId("go-shim");
  // B is high by 4 mm/m of 860 mm, and A low by 3 mm/m of 460, read from D: C gets none, B and D what is left of A's.
  await expect(go).toContainText(
    /First: 4\.\d\smm under A, 1\.\d\smm under B, 3\.\d\smm under D\. Read the level again/,
  );
  await expectAccessible(page);
  await go.getByRole("button", { name: "Done: read it again" }).click();
  await expect(correct).toContainText("Read the level again, both ways");
  await slope("AB", "0.2");
  await slope("DA", "0.1");
  await expect(page.getByTestId("now")).toContainText("Every limit is met");
  await saved(page);
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText(/Corrected: Shims under its feet, by/)).toHaveCount(1);
});

test("a frame teaches its shop, a coupon does, and the next job is predicted by both", async ({
  page,
  address,
  watched,
}) => {
  watched.allow.push(/422|409/);
  const job = await welded(page, address, "Teaching stand");
  await page.goto(`${address}${job}/check`);
  await readCold(page, 0.2);
  const teach = page.getByTestId("teach");
  await teach.getByRole("button", { name: "See what it teaches" }).click();
  await expect(teach).toContainText(/changes lie within what was predicted/, { timeout: 300_000 });
  await expect(teach).toContainText(/narrowed to \d+\s% of its width/);
  await saved(page);
  await teach.getByRole("button", { name: "Let it teach" }).click();
  await expect(page.getByTestId("taught")).toContainText("It teaches", { timeout: 300_000 });
  await teach.getByRole("link", { name: "What the shop has learned" }).click();
  await expect(page.getByRole("heading", { name: "What we learned" })).toBeVisible();
  const lessons = page.getByRole("list", { name: "Lessons" });
  await expect(lessons.getByRole("link", { name: "Teaching stand" })).toBeVisible();
  await expect(page.getByTestId("is-it-right")).toContainText(/too few to tell/);
  await page.getByLabel("Wall", { exact: true }).last().fill("3");
  await expect(page.getByTestId("coupon-power")).toContainText(/narrowed to \d+\s%/);
  await page.getByLabel(/^Before/).fill("100");
  await page.getByLabel("Cold, after").fill("100.2");
  await page.getByRole("button", { name: "Put it in the book" }).click();
  await expect(page.getByTestId("coupon-said")).toContainText("did not shrink");
  await expect(page.getByLabel("Cold, after")).toHaveValue("100.2");
  await page.getByLabel("Cold, after").fill("99.62");
  await page.getByRole("button", { name: "Put it in the book" }).click();
  await expect(page.getByTestId("coupon-said")).toContainText("It is in the book");
  await expect(lessons).toContainText("Moved by 0.38");
  await expectAccessible(page);
  // Left out with a reason, and taken back.
  await page.getByRole("button", { name: "Leave it out: Teaching stand" }).first().click();
  await page.getByLabel("Why it does not count").fill("clamped otherwise");
  await page.getByRole("button", { name: "Leave it out", exact: true }).click();
  await expect(lessons).toContainText("Does not count. clamped otherwise");
  await page.getByRole("button", { name: "Take it back: Teaching stand" }).first().click();
  await expect(lessons).not.toContainText("clamped otherwise");
  // In inches nothing of it is metric.
  await page.getByRole("radio", { name: "inch", exact: true }).click();
  await expect(lessons).not.toContainText(/\dmm|\d\smm/);

  await page.goto(`${address}${job}/weld`);
  await expect(page.getByTestId("learned-since")).toContainText(/Bands rest on:/);
});

test("a frame is finished step by step at the bench, and the record keeps it", async ({ page, address }) => {
  await page.setViewportSize(BENCH);
  const job = await welded(page, address, "Finished stand");
  await page.goto(`${address}${job}/finish`);
  const steps = page.getByRole("list", { name: "Steps of finishing" });
  await expect(page.getByTestId("now")).toContainText("Take spatter off");
  await expect(page.getByTestId("now")).toContainText("has not been checked cold yet");
  // A press before the page lives is done as soon as it does: it is not asked at once whether it took.
  await steps.getByRole("checkbox", { name: "Take spatter off" }).click();
  await expect(page.getByTestId("now")).not.toContainText("Take spatter off");
  await page.getByRole("radio", { name: "hot-dip zinc" }).click();
  await expect(steps).toContainText("Never dip a sealed tube");
  await expect(steps.getByRole("checkbox", { name: "Take spatter off" })).toBeChecked();
  await expectAccessible(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await saved(page);
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText("Done: Take spatter off")).toBeVisible();
});

test("the tip of a drawbar that stands aside is drawn across toward a corner; what was done stands in the log", async ({
  page,
  address,
}) => {
  const frame = deckWithPole(800);
  const places = placesOf(resolveStructure(frame).structure);
  const shelf = (await (await page.request.get(`${address}/api/instruments`)).json()) as Job["instruments"];
  const job: Job = {
    id: uuid(),
    createdAt: "2026-11-24T07:00:00.000Z",
    version: 1,
    plan: drawnPlan(frame),
    instruments: shelf.filter((i) => i.id === "tape-100" || i.id === "calliper"),
    entries: coldAt(places, placesMoved(places, { PE: { x: 0, y: 6 } })),
  };
  const answer = await page.request.post(`${address}/api/jobs/file?origin=test`, {
    data: writeJobFile(job),
    headers: { "content-type": "application/json" },
  });
  expect(answer.status(), await answer.text()).toBe(200);
  await page.goto(`${address}/jobs/${job.id}/check`);
  const correct = page.getByTestId("correct");
  await expect(correct).toContainText("Draw PE across toward B, past yield", { timeout: 120_000 });
  const go = page.getByTestId("go-swing");
  await expect(go).toContainText(/First, draw PE across toward B by [\d.]+\smm beyond where it stands/);
  await expect(go).toContainText(/[\d.]+\smm of it is to stay at PE/);
  await expectAccessible(page);
  await go.getByRole("button", { name: "Done: read it again" }).click();
  await saved(page);
  await expect(correct).toContainText("Read the frame again, in a new round, before anything else.");
  await page.goto(`${address}/jobs/${job.id}/log`);
  await expect(page.getByText(/Corrected: Draw PE across toward B, past yield, by/)).toBeVisible();
});
