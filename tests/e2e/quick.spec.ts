import { expect, saved, startJob, test } from "./fixtures";

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
