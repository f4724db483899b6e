import { BENCH, demoJob, expect, expectAccessible, read, saved, startJob, test } from "./fixtures";

test.use({ viewport: BENCH, hasTouch: true });

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
