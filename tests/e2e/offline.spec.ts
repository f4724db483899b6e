import path from "node:path";
import { layout, runningPid } from "../../script/lib/mariadb.mjs";
import type { Job } from "../../src/core/job";
import { SYNC_TAG } from "../../src/ui/offline/names";
import { type App, startApp } from "../support/app";
import { BENCH, expect, expectAccessible, read, saved, startJob, test } from "./fixtures";

test.use({ viewport: BENCH, hasTouch: true, serviceWorkers: "allow" });
test.describe.configure({ mode: "serial" });

// A server of its own: it is stopped and started again.
let app: App;
test.beforeAll(async () => {
  app = await startApp(["--innodb-flush-log-at-trx-commit=0"]);
});
test.afterAll(async () => {
  await app?.end();
});

/** What a browser says of a server that is not there. */
const AWAY = [
  /ERR_CONNECTION_REFUSED/,
  /ERR_FAILED/,
  /Failed to fetch/,
  /Failed to load/,
  /failed to load/,
  /net::ERR/,
];

const entriesOf = async (path: string): Promise<Job["entries"]> => {
  const { job } = (await (await fetch(`${app.address}/api${path}`)).json()) as { job: Job };
  return job.entries;
};

/** The program is on the device, whole. */
const isKept = async (page: import("@playwright/test").Page): Promise<void> => {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await expect
    .poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null), { timeout: 300_000 })
    .toBe(true);
};

test("every stage opens, measures and ticks without a server, after a reload and in a new tab; it all arrives", async ({
  page,
  context,
  watched,
}) => {
  watched.allow.push(...AWAY);
  const job = await startJob(page, app.address, "Far from the router");
  await isKept(page);
  // Heard of last a moment ago.
  await page.waitForTimeout(2500);
  await app.kill();
  await page.reload();
  await expect(page.locator("header").getByText("Far from the router")).toBeVisible();
  const stages = ["frame", "cut", "bed", "layout", "square", "weld", "check", "log", "job"];
  const names = ["Frame", "Cut", "Bed", "Lay out", "Square", "Tack and weld", "Check", "Log", "Job"];
  for (const [i, name] of names.entries()) {
    await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name }).click();
    await expect(page).toHaveURL(`${app.address}${job}${stages[i] === "job" ? "" : `/${stages[i]}`}`);
    await expect(page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name })).toHaveAttribute(
      "aria-current",
      "page",
    );
    await expect(page.locator("main").getByRole("heading").first()).toBeAttached();
  }
  await page.goto(`${app.address}${job}/square`);
  await read(page, { AB: "1000.5", BC: "600.5" });
  await page.goto(`${app.address}${job}/weld`);
  // The forecast is worked out on the device.
  await expect(page.getByRole("slider")).toBeVisible();
  await page.close();

  const again = await context.newPage();
  await again.goto(`${app.address}${job}/square`);
  await expect(again.getByRole("list", { name: "Readings of this round" })).toContainText("1000.5");
  await read(again, { CD: "1000" });
  await expect(again.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText("to send");
  await expectAccessible(again);
  await app.start();
  await saved(again);
  const stored = await entriesOf(job);
  expect(stored.filter((e) => e.kind === "round")).toHaveLength(1);
  const texts = stored.flatMap((e) => (e.kind === "reading" ? [e.value && "mm" in e.value ? e.value.text : ""] : []));
  expect(texts).toEqual(["1000.5", "600.5", "1000"]);
});

test("what waits of a job that is closed is said in the list and sent from there", async ({
  page,
  context,
  watched,
}) => {
  watched.allow.push(...AWAY);
  const job = await startJob(page, app.address, "Closed too early");
  await isKept(page);
  await page.goto(`${app.address}${job}/log`);
  await saved(page);
  await page.waitForTimeout(2500);
  await app.kill();
  await page.getByLabel(/What happened/).fill("Written in the yard");
  await page.getByRole("button", { name: "Keep the note" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText("1 to send");
  await page.close();

  const list = await context.newPage();
  await list.goto(app.address);
  await expect(list.getByText("The server is not reached; go on with a job from this device.")).toBeVisible();
  await expect(list.getByTestId("unsent")).toContainText("1 entry of Closed too early");
  await expect(list.getByRole("link", { name: /Closed too early/ }).last()).toBeVisible();
  await expectAccessible(list);
  await list.goto(`${app.address}/jobs/00000000-0000-4000-8000-000000000000/weld`);
  await expect(list.getByText("This job is not on this device.")).toBeVisible();
  await app.start();
  await list.goto(app.address);
  await expect(list.getByRole("heading", { name: /flat frames/ })).toBeVisible();
  await expect(list.getByTestId("unsent")).toHaveCount(0);
  await expect
    .poll(async () => (await entriesOf(job)).flatMap((e) => (e.kind === "note" ? [e.text] : [])))
    .toEqual(["Written in the yard"]);
});

test("what waits is sent by the browser itself once there is a server, though every page was closed", async ({
  page,
  context,
  watched,
}) => {
  watched.allow.push(...AWAY);
  const job = await startJob(page, app.address, "Shut in the yard");
  await isKept(page);
  await page.goto(`${app.address}${job}/log`);
  await saved(page);
  await page.waitForTimeout(2500);
  await app.kill();
  await page.getByLabel(/What happened/).fill("Written before the lid was shut");
  await page.getByRole("button", { name: "Keep the note" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText("1 to send");
  const beside = await context.newPage();
  await page.close();
  await app.start();
  const notes = async (): Promise<string[]> =>
    (await entriesOf(job)).flatMap((e) => (e.kind === "note" ? [e.text] : []));
  expect(await notes()).toEqual([]);
  // What the browser does when a network is there again, asked for through its own tools: the page beside is an empty one.
  const browser = await context.newCDPSession(beside);
  const known = new Promise<string>((resolve) => {
    browser.on("ServiceWorker.workerRegistrationUpdated", ({ registrations }) => {
      const own = registrations.find((r) => !r.isDeleted && r.scopeURL.startsWith(app.address));
      if (own) resolve(own.registrationId);
    });
  });
  await browser.send("ServiceWorker.enable");
  const registrationId = await known;
  const origin = new URL(app.address).origin;
  await browser.send("ServiceWorker.dispatchSyncEvent", { origin, registrationId, tag: SYNC_TAG, lastChance: false });
  await expect.poll(notes, { timeout: 60_000 }).toEqual(["Written before the lid was shut"]);
});

test("a wait that ends while the page is not in sight is told beside it, once that was wished and allowed", async ({
  page,
  context,
}) => {
  // This browser has no place beside its pages to tell anything: what it is asked to show is kept in its stead.
  await page.addInitScript(() => {
    const told: string[] = [];
    Object.assign(window, { told });
    Object.defineProperty(Notification, "permission", { get: () => "granted" });
    ServiceWorkerRegistration.prototype.showNotification = async (title, how) => {
      told.push(`${title} ${how?.body ?? ""} ${(how?.data as { path: string } | undefined)?.path}`);
    };
  });
  const job = await startJob(page, app.address, "Told from the pocket");
  await isKept(page);
  const device = page.getByRole("button", { name: /this device/ });
  const unseen = page.getByRole("radio", { name: "also told while the page is not in sight" });
  // Not allowed: it says so and goes on ringing.
  await device.click();
  await unseen.click();
  await expect(page.getByText("This browser does not let the page tell you")).toBeVisible();
  await expect(page.getByRole("radio", { name: "it rings and shakes" })).toBeChecked();
  await context.grantPermissions(["notifications"], { origin: app.address });
  await unseen.click();
  await expect(unseen).toBeChecked();
  await expect(page.getByText("This browser does not let the page tell you")).toHaveCount(0);
  await expectAccessible(page);
  await page.keyboard.press("Escape");

  await page.clock.install();
  await page.goto(`${app.address}${job}/weld`);
  const list = page.getByRole("list", { name: "Order of work" });
  await list.getByRole("button", { name: /Weld B, outside corner/ }).click();
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await list.getByRole("button", { name: /Wait until all four corners can be touched/ }).click();
  await expect(page.getByTestId("cooling")).toContainText(/more until all of it can be touched/);
  const told = () => page.evaluate(() => (window as unknown as { told: string[] }).told);
  await page.evaluate(() => Object.defineProperty(document, "visibilityState", { get: () => "hidden" }));
  expect(await told()).toEqual([]);
  await page.clock.fastForward("06:00:00");
  await expect(page.getByTestId("cooling")).toContainText("By the ticks all of it can be touched.");
  await expect
    .poll(told)
    .toEqual([
      expect.stringMatching(
        /^By the ticks all of it can be touched\. Make sure with the back of the hand.*Told from the pocket.* \/jobs\/.*\/weld/,
      ),
    ]);
});

test("while the database is away a page says so instead of failing, and a device goes on with what it keeps", async ({
  page,
  watched,
}) => {
  watched.allow.push(...AWAY, /503/);
  const job = await startJob(page, app.address, "No record just now");
  await isKept(page);
  await page.goto(`${app.address}${job}/square`);
  await saved(page);
  await page.waitForTimeout(2500);
  const database = runningPid(layout(path.join(app.folder, "db")));
  if (!database) throw new Error("The database does not run.");
  process.kill(database, "SIGKILL");
  expect((await fetch(`${app.address}/shelf`, { method: "HEAD" })).status).toBe(503);
  for (const at of ["/", "/shelf", `${job}/weld`]) {
    const answer = await fetch(`${app.address}${at}`);
    expect(answer.status).toBe(503);
    expect(await answer.text()).toMatch(/The database does not answer just now/);
  }
  expect((await fetch(`${app.address}/shell`)).status).toBe(200);
  await page.goto(`${app.address}${job}/square`);
  await expect(page.locator("header").getByText("No record just now")).toBeVisible();
  await read(page, { AB: "1000.5" });
  await expect(page.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText("to send");
});
