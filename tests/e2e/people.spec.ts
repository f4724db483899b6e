import type { Page } from "@playwright/test";
import { BENCH, expect, expectAccessible, read, saved, startJob, test } from "./fixtures";

test("two people with one job open do not overwrite each other, and the later one sees what changed", async ({
  page,
  address,
  browser,
  watched,
}) => {
  watched.allow.push(/status of 409/);
  const job = await startJob(page, address, "Shared");
  await page.goto(`${address}${job}/frame`);
  await saved(page);
  const other = await (await browser.newContext()).newPage();
  await other.goto(`${address}${job}/frame`);
  await expect(other.locator("[data-save=saved]")).toBeVisible();

  // The other page must not hear of the save before it makes its own.
  await other.route("**/news*", (route) => route.abort());
  await page.getByLabel("Length AB, CD").fill("1300");
  await page.getByLabel("Length AB, CD").blur();
  await saved(page);
  await other.getByLabel("Width BC, DA").fill("700");
  await expect(other.getByRole("dialog")).toContainText("Length: 1000 mm → 1300");
  await expect(other.getByRole("dialog")).not.toContainText("you changed this too");
  await other.getByRole("button", { name: "Keep both" }).click();
  await expect(other.locator("[data-save=saved]")).toBeVisible();
  await expect(other.getByLabel("Length AB, CD")).toHaveValue("1300");

  await page.evaluate(() => window.dispatchEvent(new Event("focus")));
  await expect(page.getByText(/changed Width: 600\smm → 700\smm/)).toBeVisible();
  await expect(page.getByLabel("Width BC, DA")).toHaveValue("700");
  await page.getByRole("button", { name: "Seen" }).click();
  await other.context().close();
});

test("what one reads the other sees as it happens, and each sees that the other is there", async ({
  page,
  address,
  browser,
}) => {
  const job = await startJob(page, address, "Side by side");
  await page.goto(`${address}${job}/square`);
  const top = (of: Page) => of.getByRole("main").evaluate((main) => main.getBoundingClientRect().top);
  const alone = await top(page);
  const phone = await (await browser.newContext({ viewport: BENCH, serviceWorkers: "block" })).newPage();
  await phone.addInitScript(() => localStorage.setItem("plumb/device", JSON.stringify({ who: "Odo" })));
  await phone.goto(`${address}${job}/square`);
  await expect(page.getByTestId("also-here")).toHaveText("Odo is at Square");
  await expect(phone.getByTestId("also-here")).toHaveText("Somebody is at Square");
  // Whoever comes and goes moves nothing of the page.
  expect(await top(page)).toBe(alone);
  await read(phone, { AB: "1000.5" });
  await expect(page.getByRole("list", { name: "Readings of this round" })).toContainText("1000.5");
  await phone.goto(`${address}${job}/weld`);
  await expect(page.getByTestId("also-here")).toHaveText("Odo is at Tack and weld");
  await expectAccessible(page);
  const together = await top(phone);
  await page.goto(`${address}/`);
  await expect(phone.getByTestId("also-here")).toHaveCount(0);
  expect(await top(phone)).toBe(together);
  await page.goto(`${address}${job}/square`);
  await expect(page.getByTestId("also-here")).toHaveText("Odo is at Tack and weld");
  await phone.context().close();
  await expect(page.getByTestId("also-here")).toHaveCount(0);
});

test("closing the browser loses nothing, not even what could not be read", async ({ page, address, context }) => {
  const job = await startJob(page, address, "Left open");
  await page.goto(`${address}${job}/frame`);
  await page.getByLabel("Length AB, CD").fill("twelve hundred");
  await expect(page.getByText('Cannot read "twelve hundred"')).toBeVisible();
  await page.goto(`${address}${job}/square`);
  await expect(page.getByRole("button", { name: "Keep AB" })).toBeVisible();
  await page.locator("form input").first().fill("1000,5");
  await page.close();
  const again = await context.newPage();
  await again.goto(`${address}${job}/square`);
  await expect(again.locator("form input").first()).toHaveValue("1000,5");
  await again.goto(`${address}${job}/frame`);
  await expect(again.getByLabel("Length AB, CD")).toHaveValue("twelve hundred");
  await expect(again.getByLabel("Length AB, CD")).toHaveAttribute("aria-invalid", "true");
});

test("a job that is not here has a page that says so", async ({ page, address, watched }) => {
  watched.allow.push(/status of 404/);
  for (const path of ["/jobs/00000000-0000-4000-8000-000000000000", "/jobs/none/square", "/nowhere"]) {
    const answer = await page.goto(address + path);
    expect(answer?.status()).toBe(404);
    await expect(page.getByRole("heading", { name: "There is nothing at this address." })).toBeVisible();
  }
});

test("a job is put away, found among those put away, and put back; a long list is searched", async ({
  page,
  address,
}) => {
  const name = `Rack ${Math.random().toString(36).slice(2, 8)}`;
  await startJob(page, address, name);
  await page.goto(address);
  await page.getByRole("button", { name: `Put away: ${name}` }).click();
  await expect(page.getByText(`${name} is put away: hidden, kept whole.`)).toBeVisible();
  await expect(page.getByRole("link", { name: new RegExp(name) })).toHaveCount(0);
  await page.getByRole("link", { name: "Jobs put away" }).click();
  await page.getByLabel("Find a job that was put away").fill(name.toUpperCase());
  await page.getByRole("button", { name: "Find" }).click();
  await expect(page.getByRole("status").filter({ hasText: "1 job with" })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole("button", { name: `Put back: ${name}` }).click();
  await expect(page.getByText("No job of that name here.")).toBeVisible();
  await page.getByRole("link", { name: "Back to the jobs at hand" }).click();
  await expect(page.getByRole("link", { name: new RegExp(name) }).first()).toBeVisible();
});
