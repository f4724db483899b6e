import { comb, started } from "../support/drawnFrames";
import { BENCH, demoJob, expect, saved, startJob, test } from "./fixtures";

test("a page that is left in the same moment keeps what was just changed, and never calls it saved before", async ({
  page,
  address,
  watched,
}) => {
  // What a page sent may get in after the next one was read: that is found out by being refused, and settled unseen.
  watched.allow.push(/status of 409/);
  const job = await startJob(page, address, "Left at once");
  await page.goto(`${address}${job}/frame`);
  const field = page.getByLabel(/^Length AB/);
  // Looked at from within the page: the mark between the key and the answer of the server.
  await page.evaluate(() => {
    const seen = new Set<string>();
    Object.assign(window, { seen });
    const mark = document.querySelector("[data-save]");
    new MutationObserver(() => seen.add(mark?.getAttribute("data-save") ?? "")).observe(document, {
      subtree: true,
      attributes: true,
      attributeFilter: ["data-save"],
    });
  });
  await field.fill("1234");
  await expect
    .poll(() => page.evaluate(() => [...(window as unknown as { seen: Set<string> }).seen]))
    .toContain("saving");
  await saved(page);
  for (const width of ["1301", "1302", "1303"]) {
    await field.fill(width);
    await page.goto(`${address}${job}/cut`);
    await page.goto(`${address}${job}/frame`);
    await expect(field).toHaveValue(width);
  }
  await saved(page);
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await page.reload();
  await expect(field).toHaveValue("1303");
});

test("keys are kept while parts of the page are still on their way", async ({ page, address }) => {
  const job = await startJob(page, address, "Slow parts");
  await page.goto(`${address}${job}/square`);
  await expect(page.getByRole("button", { name: "Keep AB" })).toBeVisible();
  // Whatever the page fetches from now on comes late.
  await page.route("**/*.js", async (route) => {
    await new Promise((done) => setTimeout(done, 1500));
    await route.continue();
  });
  await page.locator("form input").first().focus();
  for (const value of ["1000.5", "600.5", "1000.5", "600.5", "1167", "1164"]) {
    await page.keyboard.type(value, { delay: 20 });
    await page.keyboard.press("Enter");
  }
  const list = page.getByRole("list", { name: "Readings of this round" });
  for (const [span, value] of Object.entries({
    AB: "1000.5",
    BC: "600.5",
    CD: "1000.5",
    DA: "600.5",
    AC: "1167",
    BD: "1164",
  }))
    await expect(list.getByRole("button", { name: span })).toContainText(value);
  await saved(page);
});

test("what is pressed and typed before the page lives is done as soon as it does", async ({ page, address }) => {
  const job = await startJob(page, address, "Early hand");
  await page.route("**/*.js", async (route) => {
    await new Promise((done) => setTimeout(done, 2500));
    await route.continue();
  });
  await page.goto(`${address}${job}/square`, { waitUntil: "commit" });
  const field = page.locator("form input").first();
  await field.pressSequentially("1000.5");
  await page.getByRole("button", { name: "Keep AB" }).click();
  await expect(field).toHaveValue("1000.5");
  const list = page.getByRole("list", { name: "Readings of this round" });
  await expect(list.getByRole("button", { name: "AB" })).toContainText("1000.5");
  await saved(page);

  await page.goto(`${address}${job}/frame`, { waitUntil: "commit" });
  await page.getByRole("button", { name: "Start from a shape" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
});

test("what is typed across the moment in which the page comes to life is kept whole, and Keep comes after it", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Across the moment");
  let delayMs = 0;
  await page.route("**/*.js", async (route) => {
    await new Promise((done) => setTimeout(done, delayMs));
    await route.continue();
  });
  const list = page.getByRole("list", { name: "Readings of this round" });
  // Keys over the whole of the moment, and keys at once with the press somewhere about it.
  const paces = [
    { span: "AB", value: "1000.5", scriptMs: 250, keyMs: 85, pressMs: 0 },
    { span: "BC", value: "600.25", scriptMs: 350, keyMs: 110, pressMs: 0 },
    { span: "CD", value: "1001.5", scriptMs: 150, keyMs: 5, pressMs: 0 },
    { span: "DA", value: "600.75", scriptMs: 250, keyMs: 5, pressMs: 100 },
    { span: "AC", value: "1167.5", scriptMs: 150, keyMs: 5, pressMs: 600 },
  ];
  for (const { span, value, scriptMs, keyMs, pressMs } of paces) {
    delayMs = scriptMs;
    await page.goto(`${address}${job}/square`, { waitUntil: "commit" });
    await page.locator("form input").first().pressSequentially(value, { delay: keyMs });
    await page.waitForTimeout(pressMs);
    await page.getByRole("button", { name: `Keep ${span}` }).click();
    await expect(list.getByRole("button", { name: span })).toContainText(value);
    await saved(page);
  }
});

test("a press is that of the button on which it began, though the page slides away under it", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Sliding");
  let delayMs = 0;
  await page.route("**/*.js", async (route) => {
    await new Promise((done) => setTimeout(done, delayMs));
    await route.continue();
  });
  const shape = page.getByRole("button", { name: "Start from a shape" });
  const press = async (slidePx: number, dragPx: number) => {
    const box = await shape.boundingBox();
    if (!box) throw new Error("No button in sight");
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.evaluate((px) => window.scrollBy(0, -px), slidePx);
    await page.mouse.move(x + dragPx, y);
    await page.mouse.up();
  };
  // Before the page's code is there, and after.
  for (const scriptMs of [1500, 0]) {
    delayMs = scriptMs;
    await page.goto(`${address}${job}/frame`, { waitUntil: scriptMs > 0 ? "commit" : "load" });
    await shape.scrollIntoViewIfNeeded();
    // A finger that is drawn off it has thought better of it.
    await press(60, 300);
    await press(0, 300);
    await page.waitForTimeout(2 * scriptMs + 500);
    await expect(page.getByRole("dialog")).toHaveCount(0);
    if (scriptMs > 0) await page.goto(`${address}${job}/frame`, { waitUntil: "commit" });
    await shape.scrollIntoViewIfNeeded();
    await press(60, 3);
    await expect(page.getByRole("dialog")).toBeVisible();
  }
});

for (const [width, height] of [
  [1280, 800],
  [BENCH.width, BENCH.height],
] as const)
  test(`no picture changes its height as a page comes to life, ${width} wide`, async ({ page, address }) => {
    await page.setViewportSize({ width, height });
    const jobs = [
      await demoJob(page, address, "Kiln-shelf stand"),
      await demoJob(page, address, "Ware cart base"),
      await demoJob(page, address, "Courtyard gate leaf"),
    ];
    let held: (() => void)[] | null = null;
    await page.route("**/*.js", async (route) => {
      if (held) await new Promise<void>((done) => held?.push(done));
      await route.continue();
    });
    const heights = () =>
      page.evaluate(() =>
        [...document.querySelectorAll("main svg[aria-label]")]
          .filter((svg) => svg.getBoundingClientRect().width > 0)
          .map((svg) => ({
            picture: svg.getAttribute("aria-label")?.slice(0, 40) ?? "",
            px: Math.round(svg.getBoundingClientRect().height),
          })),
      );
    for (const job of jobs)
      for (const stage of ["", "/frame", "/square", "/layout"]) {
        held = [];
        await page.goto(`${address}${job}${stage}`, { waitUntil: "commit" });
        await expect(page.locator("main svg[aria-label]").first()).toBeAttached();
        await expect(page.locator("[data-save]")).toBeAttached();
        const before = await heights();
        expect(before.length, `pictures of ${stage}`).toBeGreaterThan(0);
        const waiting: (() => void)[] = held;
        held = null;
        for (const go of waiting) go();
        // It lives once its pictures are drawn for their own width.
        await expect
          .poll(() =>
            page.evaluate(() =>
              [...document.querySelectorAll<SVGSVGElement>("main svg[aria-label]")]
                .filter((svg) => svg.getBoundingClientRect().width > 0)
                .every((svg) => Math.abs(svg.viewBox.baseVal.width - (svg.parentElement?.clientWidth ?? 0)) < 2),
            ),
          )
          .toBe(true);
        const after = new Map((await heights()).map((p) => [p.picture, p.px]));
        for (const { picture, px } of before)
          if (after.has(picture)) expect(Math.abs((after.get(picture) ?? 0) - px), picture).toBeLessThanOrEqual(2);
      }
  });

for (const [width, height] of [
  [1280, 800],
  [BENCH.width, BENCH.height],
] as const)
  test(`hardly anything moves as letters and code of a page come late, ${width} wide`, async ({ page, address }) => {
    await page.setViewportSize({ width, height });
    const job = await demoJob(page, address, "Ware cart base");
    let held: (() => void)[] | null = [];
    await page.route("**/*.woff2", async (route) => {
      // What is asked for after they were let go comes at once.
      if (held) await new Promise<void>((done) => held?.push(done));
      await route.continue();
    });
    // How much of the screen moved, times how far, as the browser itself counts it.
    await page.addInitScript(() => {
      const moved: { value: number; sources: { node: Node | null }[] }[] = [];
      Object.assign(window, { moved });
      new PerformanceObserver((list) => moved.push(...(list.getEntries() as never[]))).observe({
        type: "layout-shift",
        buffered: true,
      });
    });
    for (const stage of ["check", "layout", "square", "weld", "cut", "bed", "frame", "finish"]) {
      held = [];
      // Not loaded before its letters are.
      await page.goto(`${address}${job}/${stage}`, { waitUntil: "commit" });
      await expect(page.locator("[data-save=saved]")).toBeVisible();
      await expect.poll(() => held?.length, stage).toBeGreaterThan(0);
      const waiting: (() => void)[] = held ?? [];
      held = null;
      for (const go of waiting) go();
      await expect.poll(() => page.evaluate(() => document.fonts.status)).toBe("loaded");
      await page.waitForTimeout(300);
      const moved = await page.evaluate(() =>
        (window as unknown as { moved: { value: number; sources: { node: Node | null }[] }[] }).moved.map(
          ({ value, sources }) => ({ value, what: sources.map(({ node }) => node?.textContent?.slice(0, 40) ?? "") }),
        ),
      );
      const sum = moved.reduce((all, { value }) => all + value, 0);
      expect(sum, `${stage}: ${JSON.stringify(moved)}`).toBeLessThan(0.05);
    }
  });

test("what is still being worked out is not told as known, not even before the page lives", async ({
  page,
  address,
}) => {
  // A new job for each page, of so many joints that nobody has worked it out before the page is asked for.
  const newJob = async (length: number): Promise<string> => {
    const drawn = started("rack", { uprights: 24, length });
    const answer = await page.request.post(`${address}/api/jobs`, {
      data: { name: "Still to come", units: "mm", origin: "test", drawn },
    });
    expect(answer.ok(), await answer.text()).toBe(true);
    return `/jobs/${((await answer.json()) as { id: string }).id}`;
  };
  let held: (() => void)[] | null = [];
  await page.route("**/*.js", async (route) => {
    if (held) await new Promise<void>((done) => held?.push(done));
    await route.continue();
  });
  // No length to cut to, either: what the weld takes is added to it.
  await page.goto(`${address}${await newJob(4873)}/cut`, { waitUntil: "commit" });
  await expect(page.getByText("until then nothing is known to cut to")).toBeAttached();
  await page.goto(`${address}${await newJob(4911)}/layout`, { waitUntil: "commit" });
  const needs = page.getByTestId("fixture-needs");
  await expect(needs).toContainText("as drawn until the prediction is there");
  await expect(page.getByText("what it shrinks by is not worked out yet")).toBeVisible();
  const waiting: (() => void)[] = held;
  held = null;
  for (const go of waiting) go();
  await expect(needs).toContainText("off nominal for what the weld will take", { timeout: 300_000 });
  await expect(page.getByText("When it has shrunk it comes free of every stop.")).toBeVisible();
});

test("what is pressed at a weld stays where it is while the forecast comes in", async ({ page, address }) => {
  await page.setViewportSize(BENCH);
  const made = await page.request.post(`${address}/api/jobs`, {
    data: { name: "Late forecast", units: "mm", origin: "test", drawn: comb(12, 187, 231, 50) },
  });
  const { id } = (await made.json()) as { id: string };
  // Nothing is worked out before it is let go.
  let go: () => void = () => undefined;
  const held = new Promise<void>((resolve) => {
    go = resolve;
  });
  await page.route(/worker[^/]*\.js/, async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`${address}/jobs/${id}/weld?step=${encodeURIComponent("tack/T1/RAIL/minus")}`);
  const buttons = [
    page.getByRole("button", { name: "Done", exact: true }),
    page.getByRole("button", { name: "All 12 done" }),
  ];
  await expect(page.getByTestId("does-to-frame")).toContainText("being worked out");
  const tops = () => Promise.all(buttons.map(async (b) => (await b.boundingBox())?.y));
  await page.evaluate(() => document.fonts.ready);
  const before = await tops();
  expect(before.every((y) => y !== undefined)).toBe(true);
  go();
  await expect(page.getByRole("slider")).toBeVisible();
  await expect(page.getByTestId("does-to-frame")).toContainText(/It (moves|lifts|lowers)/);
  expect(await tops()).toEqual(before);
});

test("a page has its title at every moment, and the one of its stage and job", async ({ page, address }) => {
  await startJob(page, address, "Named gate");
  await expect(page).toHaveTitle("Job · Named gate · Mellow Plumb");
  // A slow yard: what a page asks for comes late, so that whatever comes beside it comes apart.
  await page.route("**/*", async (route) => {
    if ("rsc" in route.request().headers()) await new Promise((done) => setTimeout(done, 400));
    await route.continue();
  });
  await page.evaluate(() => {
    const titles = new Set<string>();
    Object.assign(window, { titles });
    setInterval(() => titles.add(document.title), 2);
    new MutationObserver(() => titles.add(document.title)).observe(document, { subtree: true, childList: true });
  });
  for (const stage of ["Cut", "Bed", "Log", "Job"]) {
    await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: stage }).click();
    await expect(page).toHaveTitle(`${stage} · Named gate · Mellow Plumb`);
  }
  await page.getByLabel("Name", { exact: true }).fill("Gate by the barn");
  await expect(page).toHaveTitle("Job · Gate by the barn · Mellow Plumb");
  await saved(page);
  await page.getByRole("link", { name: "all jobs" }).click();
  await expect(page).toHaveTitle("Mellow Plumb");
  const seen = await page.evaluate(() => [...(window as unknown as { titles: Set<string> }).titles]);
  expect(seen.length).toBeGreaterThan(5);
  expect(seen.filter((title) => !title.endsWith("Mellow Plumb"))).toEqual([]);
});
