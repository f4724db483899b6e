import { BENCH, demoJob, expect, expectAccessible, read, saved, startJob, test } from "./fixtures";

test.use({ viewport: BENCH, hasTouch: true });

/** Scripts of the workers. */
const WORKER = /worker[^/]*\.js/;

test("bed, square and ticks by one hand on a phone", async ({ page, address }) => {
  const job = await startJob(page, address, "Bench job");
  await page.goto(`${address}${job}/bed`);
  await expectAccessible(page);
  await read(page, { R1: "0.2", R2: "0.3", R3: "0.2", R4: "0.4" });
  await expect(page.getByTestId("now")).toContainText("good as it is");
  await page.goto(`${address}${job}/square`);
  await read(page, { AB: "1000.5", BC: "600.5" });
  await page.getByRole("button", { name: "Take back BC" }).tap();
  await expect(page.getByRole("button", { name: "Keep BC" })).toBeVisible();
  await read(page, { BC: "600", CD: "1000.5", DA: "600.5", AC: "1167.5", BD: "1166" });
  await expect(page.getByTestId("now")).toContainText("by the tape");
  await saved(page);
  await expectAccessible(page);
  await page.goto(`${address}${job}/weld`);
  const done = page.getByRole("button", { name: "Done", exact: true });
  await expect(done).toBeInViewport();
  await done.tap();
  // The four sides and both diagonals are read: that step is done.
  await expect(page.getByTestId("now")).toContainText("Tack A");
  await saved(page);
  await expectAccessible(page);
});

test("nothing is wider than the phone, and everything to touch is large enough for a glove", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Kiln-shelf stand");
  for (const stage of ["", "/frame", "/cut", "/bed", "/square", "/weld", "/check", "/log"]) {
    await page.setViewportSize({ width: 360, height: 740 });
    await page.goto(`${address}${job}${stage}`);
    await expect(page.locator("h1")).toBeAttached();
    if (stage === "/weld") await expect(page.getByRole("slider")).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(wide, `${stage || "job"} scrolls sideways by`).toBeLessThanOrEqual(0);
    if (!["/bed", "/square", "/weld"].includes(stage)) continue;
    const small = await page
      .locator("main button:visible, main select:visible, main form input:visible")
      .evaluateAll((list) =>
        list.flatMap((e) => {
          const { height } = e.getBoundingClientRect();
          return height < 55.5 ? [`${e.textContent?.slice(0, 30) || e.tagName} ${height}`] : [];
        }),
      );
    expect(small, stage).toEqual([]);
  }
});

test("steps that are alike are ticked singly or at once", async ({ page, address }) => {
  const job = await startJob(page, address, "Alike");
  await page.goto(`${address}${job}/weld?step=tack%2FA%2Finside`);
  const now = page.getByTestId("now");
  await expect(now).toContainText("Tack A, inside corner");
  await expect(page.getByTestId("run")).toContainText("4 alike, one after the other: A, C, B, D.");
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await expect(now).toContainText("Tack C, inside corner");
  await page.getByRole("button", { name: "All 3 done" }).click();
  await expect(now).toContainText("Measure across and close the error");
  await expect(page.getByTestId("run")).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole("button", { name: /Tack D, inside corner/ }).first()).toBeVisible();
  await expectAccessible(page);
});

test("a lost connection loses neither tick nor reading", async ({ page, address, context, watched }) => {
  watched.allow.push(/ERR_INTERNET_DISCONNECTED/, /failed to load/);
  const job = await startJob(page, address, "In the yard");
  await page.goto(`${address}${job}/weld`);
  await expect(page.getByRole("button", { name: "Done", exact: true })).toBeVisible();
  await saved(page);
  await context.setOffline(true);
  await page.getByRole("button", { name: "Done", exact: true }).tap();
  await expect(page.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText("Kept on this device");
  await expect(page.getByTestId("now")).toContainText("Measure four sides");
  await context.setOffline(false);
  await saved(page);
  // The prediction that could not be worked out meanwhile comes by itself.
  await expect(page.getByRole("slider")).toBeVisible();
  await page.reload();
  await expect(page.getByTestId("now")).toContainText("Measure four sides");
  // A step that asks for readings is not ticked without them, but with a reason that stays.
  await expect(page.getByRole("link", { name: "Measure now" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Done", exact: true })).toHaveCount(0);
  await page.getByRole("button", { name: "Go on", exact: true }).tap();
  await expect(page.getByText("Say why: it is kept with the job.")).toBeVisible();
  await page.getByLabel("Go on without, because").fill("No tape in the yard");
  await page.getByRole("button", { name: "Go on", exact: true }).tap();
  await expect(page.getByTestId("now")).toContainText("Tack A");
  await saved(page);
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText(/without readings: No tape in the yard/)).toBeVisible();
});

test("a prediction whose want of a connection shows only after it is back is worked out all the same", async ({
  page,
  address,
  watched,
}) => {
  watched.allow.push(/ERR_INTERNET_DISCONNECTED/);
  const job = await startJob(page, address, "In a dip of the road");
  let fail: () => void = () => undefined;
  let asked = 0;
  const held = new Promise<void>((resolve) => {
    fail = resolve;
  });
  await page.route(WORKER, async (route) => {
    asked++;
    if (asked > 1) return route.continue();
    await held;
    return route.abort("internetdisconnected");
  });
  await page.goto(`${address}${job}/weld`);
  await expect.poll(() => asked).toBe(1);
  await page.evaluate(() => window.dispatchEvent(new Event("online")));
  fail();
  await expect(page.getByRole("slider")).toBeVisible();
  expect(asked).toBe(2);
});

test("a connection that is back in the moment in which its want shows is not missed", async ({
  page,
  address,
  watched,
}) => {
  watched.allow.push(/ERR_INTERNET_DISCONNECTED/);
  const job = await startJob(page, address, "Between two bars");
  let asked = 0;
  await page.route(WORKER, (route) => (++asked > 1 ? route.continue() : route.abort("internetdisconnected")));
  // Told right after the page's own listener heard of the failure, before anything of it is drawn.
  await page.addInitScript(() => {
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        queueMicrotask(() => this.addEventListener("error", () => window.dispatchEvent(new Event("online"))));
      }
    };
  });
  await page.goto(`${address}${job}/weld`);
  await expect(page.getByRole("slider")).toBeVisible();
  expect(asked).toBe(2);
});

test("readings are typed by the pad's own keys, stepped on the instrument, on the side of the free hand, and said aloud", async ({
  page,
  address,
}) => {
  await page.addInitScript(() => {
    localStorage.setItem("plumb/device", JSON.stringify({ hand: "left", speaks: true, theme: "glare" }));
    const said: string[] = [];
    Object.assign(window, { said });
    window.speechSynthesis.speak = (u) => void said.push(u.text);
  });
  const job = await startJob(page, address, "By keys", "inch, fractions");
  await page.goto(`${address}${job}/square`);
  const field = page.locator("form input").first();
  await field.tap();
  const pad = page.getByTestId("keypad");
  await expect(pad).toBeVisible();
  await expect(pad).toHaveAttribute("data-hand", "left");
  await expect(field).toHaveAttribute("inputmode", "none");
  for (const key of ["3", "9", "1/4"]) await pad.getByRole("button", { name: key, exact: true }).tap();
  await expect(field).toHaveValue("39 1/4");
  await pad.getByRole("button", { name: /1\/32\sin more/ }).tap();
  await expect(field).toHaveValue("39 9/32");
  await pad.getByRole("button", { name: /1\/32\sin less/ }).tap();
  await pad.getByRole("button", { name: "Take the last sign off" }).tap();
  await expect(field).toHaveValue("39 1/");
  await pad.getByRole("button", { name: "8", exact: true }).tap();
  await expect(page.getByText(/39\s1\/8\sin/).first()).toBeVisible();
  // The field and what was understood stand above the keys.
  const [dock, shown] = [await pad.boundingBox(), await field.boundingBox()];
  expect((shown?.y ?? 0) + (shown?.height ?? 0)).toBeLessThan(dock?.y ?? 0);
  for (const key of await pad.getByRole("button").all())
    expect((await key.boundingBox())?.height).toBeGreaterThan(55.5);
  expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  // Far from the plan: what is asked stands above the keys too.
  await pad.getByRole("button", { name: "Keep AB" }).tap();
  const question = page.getByRole("alert").filter({ hasText: "Read again, or keep it if it is so." });
  await expect(question).toBeVisible();
  const asked = await question.boundingBox();
  expect((asked?.y ?? 0) + (asked?.height ?? 0)).toBeLessThanOrEqual((await pad.boundingBox())?.y ?? 0);
  await pad.getByRole("button", { name: "Clear" }).tap();
  for (const key of ["4", "0", "space", "1", "/", "8"]) await pad.getByRole("button", { name: key, exact: true }).tap();
  await pad.getByRole("button", { name: "Keep AB" }).tap();
  await expect(page.getByRole("list", { name: "Readings of this round" })).toContainText("40 1/8");
  // The next one is due: the keys stay, and the voice has said it.
  await expect(pad.getByRole("button", { name: "Keep BC" })).toBeVisible();
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said);
  expect(said[0]).toMatch(/^AB\. /);
  expect(said.at(-1)).toMatch(/^BC\. /);
});

test("a reading is said where the browser hears alone: what is no number is told, what is one stands in its field", async ({
  page,
  address,
}) => {
  // A browser that understands speech by itself, as far as the page asks it.
  await page.addInitScript(() => {
    localStorage.setItem("plumb/device", JSON.stringify({ hears: true }));
    const toSay = ["banana", "forty-seven and fifteen sixteenths"];
    class Fake {
      static available = async (what: { processLocally: boolean }) =>
        what.processLocally ? "available" : "unavailable";
      onresult: ((e: unknown) => void) | null = null;
      onend: (() => void) | null = null;
      processLocally = false;
      start() {
        const transcript = this.processLocally ? toSay.shift() : "sent away";
        setTimeout(() => {
          this.onresult?.({ results: [[{ transcript }]] });
          this.onend?.();
        }, 50);
      }
      abort() {
        this.onend?.();
      }
    }
    Object.assign(window, { SpeechRecognition: Fake });
  });
  const job = await startJob(page, address, "By voice", "inch, fractions");
  await page.goto(`${address}${job}/square`);
  const say = page.getByRole("button", { name: "Say it" });
  const field = page.locator("form input").first();
  await say.click();
  await expect(page.getByText("Heard “banana”, and that is no number: say it again, or type it.")).toBeVisible();
  await expect(field).toHaveValue("");
  await say.click();
  await expect(field).toHaveValue("47 15/16");
  await expect(page.getByText(/47\s15\/16\sin/).first()).toBeVisible();
  await expectAccessible(page);
  // One that lost its page over the question is not asked again, and nothing is offered.
  await page.addInitScript(() => localStorage.setItem("plumb/asking-to-hear", "1"));
  await page.reload();
  await expect(page.getByText("This browser does not understand speech on the device: type it.")).toBeVisible();
  await expect(say).toHaveCount(0);
});
