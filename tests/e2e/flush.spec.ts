import type { Page } from "@playwright/test";
import type { DrawnFrame } from "@/core/frame";
import { flatTube, started, twoTubes } from "../support/drawnFrames";
import { expect, read, test } from "./fixtures";

/** A new job with a drawn frame. @returns its address. */
async function drawnJob(page: Page, address: string, name: string, drawn: DrawnFrame): Promise<string> {
  const data = { name, units: "mm", origin: "test", drawn };
  const answer = await page.request.post(`${address}/api/jobs`, { data });
  expect(answer.ok(), await answer.text()).toBe(true);
  return `${address}/jobs/${((await answer.json()) as { id: string }).id}`;
}

test("tubes of unlike height with their tops level: laid out, squared by their diagonals, judged flat by what is drawn", async ({
  page,
  address,
}) => {
  const top = await drawnJob(page, address, "Flush top", twoTubes(flatTube(40, 80), flatTube(40, 40), "above"));
  await page.goto(`${top}/layout`);
  await expect(page.getByText(/^12 stops, 2 end stops, 6 clamps, 8 risers/)).toBeVisible();
  await expect(page.getByText(/on two risers each: E1\sby\s40\smm, .*all of it would lie on the bed/)).toBeVisible();
  await expect(page.getByText(/all 18 motions of 6 members are stopped/)).toBeVisible();

  await page.goto(`${top}/check`);
  await page.getByRole("button", { name: "New round" }).click();
  const [long, wide, across] = ["1600", "940", "1855.7"];
  await read(page, { AB: long, BC: wide, CD: long, DA: wide, AC: across, BD: across });
  await read(page, { zA: "0", zB: "0", zC: "0.2", zD: "0" });
  const flat = page.locator("li", { hasText: /^\s*Flatness/ }).first();
  await expect(flat).toContainText(/pass/);
});

test("a brace that stands in a corner has no mark of its own beside it", async ({ page, address }) => {
  const gate = await drawnJob(page, address, "Braced leaf", started("gate leaf", { length: 900, width: 1400 }));
  await page.goto(`${gate}/square`);
  await page.getByRole("button", { name: "Read the spacings too" }).click();
  const asked = page.getByRole("list", { name: "Readings of this round" });
  await expect(asked.getByRole("button", { name: /^A to M1BC/ })).toBeVisible();
  await expect(asked.getByRole("button", { name: /X1/ })).toHaveCount(0);
});
