import { deckWithPole, onPosts, tableWith } from "../support/drawnFrames";
import { expect, expectAccessible, read, saved, test } from "./fixtures";

test("the tip of a drawbar is taped from the corners, set right, and judged with the frame", async ({
  page,
  address,
}) => {
  const answer = await page.request.post(`${address}/api/jobs`, {
    data: { name: "Kiln cart with a pole", units: "mm", origin: "test", drawn: deckWithPole(800) },
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${address}/jobs/${id}/square`);
  const now = page.getByTestId("now");
  const asked = page.getByRole("list", { name: "Readings of this round" });
  await expect(asked.getByRole("button", { name: /to PE/ })).toHaveCount(3);
  // What it is set up to is told of these ways, too.
  await expect(
    page.getByText(/Set up for what the weld takes: AB .*, B to PE [\d.]+\smm, C to PE [\d.]+\smm\./),
  ).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole("group", { name: "Squared to" }).getByRole("radio", { name: "the drawing" }).click();
  await saved(page);
  await page.getByRole("group", { name: "Measured at the gate" }).getByRole("radio", { name: "tacked" }).click();
  await read(page, { AB: "1540", BC: "940", CD: "1540", DA: "940", AC: "1804.2", BD: "1804.2" });
  await expect(now).toContainText("Read the ways to PE.");
  // 780 beyond the end's outside and 470 from either corner; its tip 6 mm too far to C.
  await read(page, { "A to PE": "2368.3", "B to PE": "913.8", "C to PE": "907.6" });
  await expect(now).toContainText(/Tap PE: toward B by [56]\.\d\smm/);
  await expect(now).toContainText("Farthest place beyond the corners");
  await expectAccessible(page);

  await page.goto(`${address}/jobs/${id}/weld/print`);
  const dry = page.getByTestId("order-sheet").getByRole("listitem").filter({ hasText: "the ways to PE, dry" });
  for (const way of ["A to PE", "B to PE", "C to PE"]) await expect(dry).toContainText(way);

  await page.goto(`${address}/jobs/${id}/check`);
  await expect(now).toContainText("the ways from the corners to PE");
  await read(page, { AB: "1540", BC: "940", CD: "1540", DA: "940", AC: "1804.2", BD: "1804.2" });
  const wide = ["zA", "zB", "zC", "zD"].map((z) => [z, "0"]);
  await page
    .getByRole("list", { name: "Readings of this round" })
    .getByRole("button", { name: /^height A/ })
    .click();
  await read(page, Object.fromEntries(wide));
  await expect(now).toContainText("Still to read: farthest place beyond the corners.");
  await read(page, { "A to PE": "2367.1", "B to PE": "910.7", "C to PE": "910.7" });
  await expect(now).toContainText("Every limit is met.");
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("a table's legs are set and judged by the ways between their feet", async ({ page, address }) => {
  const answer = await page.request.post(`${address}/api/jobs`, {
    data: { name: "Wedging table", units: "mm", origin: "test", drawn: tableWith(700, 0) },
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${address}/jobs/${id}/weld`);
  // What the beads draw the feet by stands among what is predicted.
  await expect(page.getByRole("row", { name: /^feet, G1E to G2E/ }).first()).toContainText(/\d\.\d/, {
    timeout: 120_000,
  });
  await page.goto(`${address}/jobs/${id}/check`);
  const now = page.getByTestId("now");
  await expect(now).toContainText("the ways between its feet");
  const asked = page.getByRole("list", { name: "Readings of this round" });
  await expect(asked.getByRole("button", { name: /^G\dE to G\dE/ })).toHaveCount(6);
  await asked.getByRole("button", { name: /^G1E to G2E/ }).click();
  await expect(page.getByText(/Tape between the feet, from G1E to G2E/)).toBeVisible();
  await read(page, { "G1E to G2E": "1193" });
  await expect(now).toContainText("Outside its limit: feet G1E to G2E");
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});

test("a table whose rails land on its posts is squared by its top's corners, over the posts", async ({
  page,
  address,
}) => {
  const answer = await page.request.post(`${address}/api/jobs`, {
    data: { name: "Glaze table on posts", units: "mm", origin: "test", drawn: onPosts(1200, 700, [200, 780]) },
  });
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`${address}/jobs/${id}/square`);
  const now = page.getByTestId("now");
  await expect(now).toContainText("Read the four sides and both diagonals.");
  await expect(page.getByText("Tape side AB, over the posts along R5")).toBeVisible();
  await page.getByRole("group", { name: "Squared to" }).getByRole("radio", { name: "the drawing" }).click();
  await saved(page);
  await page.getByRole("group", { name: "Measured at the gate" }).getByRole("radio", { name: "tacked" }).click();
  await read(page, { AB: "1240", BC: "740", CD: "1240", DA: "740", AC: "1450", BD: "1438" });
  await expect(now).toContainText(/Slide side CD: push corner C toward D by 7\.0\smm/);
  await expectAccessible(page);

  await page.goto(`${address}/jobs/${id}/weld`);
  const order = page.getByRole("list", { name: "Order of work" });
  await expect(order).toContainText("Tack R5 on P1, outer side");
  await expect(order).toContainText("Measure four sides and both diagonals, dry");
  await expect(page.getByText(/Two halves: It wants a ring of four members joined to each other/)).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
