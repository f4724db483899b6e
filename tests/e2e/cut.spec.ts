import { expect, expectAccessible, read, saved, startJob, test } from "./fixtures";

test("bars: what to buy is proven, follows the stock, and says what is too long", async ({
  page,
  address,
  watched,
}) => {
  watched.allow.push(/422/);
  const job = await startJob(page, address, "To buy");
  await page.goto(`${address}${job}/cut`);
  const buy = page.getByTestId("buy");
  // Two of 1000 and two of 600, mitred: one bar of 6 m.
  await expect(buy).toContainText("Buy 1 × 6000 mm.");
  await expect(page.getByText("Proven: no other way of cutting needs less.")).toBeVisible();
  const bars = page.getByRole("list", { name: "Bars and what is cut from each" }).getByRole("listitem");
  await expect(bars).toHaveCount(1);
  await expect(bars.first()).toContainText("keep it");

  // A shorter bar, cheaper for what is needed.
  await page.getByRole("textbox", { name: "Price of B1" }).fill("40");
  await page.getByRole("button", { name: "A length to buy" }).click();
  await page.getByRole("textbox", { name: "Bar B2" }).fill("3300");
  await page.keyboard.press("Tab");
  await page.getByRole("textbox", { name: "Price of B2" }).fill("21.5");
  await page.keyboard.press("Tab");
  await expect(buy).toContainText("Buy 1 × 3300 mm, 21.50 in all.");

  // An offcut that makes them all goes before anything is bought.
  await page.getByRole("button", { name: "An offcut" }).click();
  await page.getByRole("textbox", { name: "Offcut O1" }).fill("3300");
  await page.keyboard.press("Tab");
  await expect(buy).toContainText("Nothing to buy: the offcuts do.");
  await expect(bars.filter({ hasText: "Offcut O1" })).toHaveCount(1);
  await saved(page);
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Offcut O1" })).toHaveValue("3300");

  await page.getByRole("button", { name: "Take bar B1 out" }).click();
  await page.getByRole("textbox", { name: "Bar B2" }).fill("800");
  await page.keyboard.press("Tab");
  await page.getByRole("button", { name: "Take offcut O1 out" }).click();
  await expect(page.getByText(/AB, CD: longer than any bar at hand/)).toBeVisible();
  await page.getByRole("textbox", { name: "Saw cut" }).fill("90");
  await page.keyboard.press("Tab");
  await expect(page.getByText(/^Not usable: The saw cut is 90\smm: outside 0 to 12\smm/)).toBeVisible();
  await expectAccessible(page);
});

test("before measuring, it says what the instruments at hand can prove", async ({ page, address }) => {
  const job = await startJob(page, address, "To prove");
  await page.goto(`${address}${job}/square`);
  await expect(page.getByRole("listitem").filter({ hasText: "Diagonals apart" })).toContainText("can be proven with");
  await page.goto(`${address}${job}/bed`);
  await expect(page.getByRole("listitem").filter({ hasText: "Flatness of the bed" })).toContainText(
    "can be proven with Feeler gauges from a straightedge",
  );
});

test("the saw's error by two test pieces, and holes for welding and for the dip", async ({
  page,
  address,
  watched,
}) => {
  watched.allow.push(/422/);
  const job = await startJob(page, address, "Saw and holes");
  await page.goto(`${address}${job}/cut`);
  await page.getByRole("textbox", { name: "Gap" }).fill("0.8");
  await page.keyboard.press("Tab");
  await expect(page.getByTestId("saw")).toHaveText("Set the saw to 44.85° for a true 45°.");
  await page.getByRole("radio", { name: /at the heel/ }).click();
  await expect(page.getByTestId("saw")).toContainText("45.15°");
  const sides = page.getByRole("listitem").filter({ hasText: "The four sides" });
  await expect(sides).toContainText("one hole of 4 mm");
  await page.getByRole("radio", { name: "hot-dip zinc" }).click();
  await expect(sides).toContainText("4 holes of 14 mm");
  await expect(page.getByText(/never dip one/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByTestId("saw")).toContainText("45.15°");
  await expect(sides).toContainText("4 holes");
  await page.getByRole("textbox", { name: "Gap" }).fill("60");
  await page.keyboard.press("Tab");
  await expect(page.getByText(/^Not usable: .*no saw is off by that/)).toBeVisible();
  // A hole of one's own, with its pilot; one that does not fit is said at its field.
  await page.getByRole("button", { name: "A hole" }).click();
  await page.getByRole("textbox", { name: "H1, diameter" }).fill("13");
  await expect(page.getByText(/Pilot first/)).toBeVisible();
  await page.getByRole("textbox", { name: "H1, diameter" }).fill("45");
  await expect(page.getByText(/^Not usable: H1: a hole of 45\smm does not fit/)).toBeVisible();
  await page.getByRole("textbox", { name: "H1, diameter" }).fill("13");
  await expectAccessible(page);
  // What changed is told by name in the log.
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText("Finish").first()).toBeVisible();
});

test("pieces as cut: a pair cut unequal is caught, and stays in the record", async ({ page, address }) => {
  const job = await startJob(page, address, "As cut");
  await page.goto(`${address}${job}/cut`);
  const compared = page.getByRole("list", { name: "Pieces compared" });
  await read(page, { AB: "1001.8", CD: "1000.3" });
  await expect(compared.getByRole("listitem").first()).toContainText("do not match. AB is longer by 1.50");
  await read(page, { BC: "600.4", DA: "600.4" });
  await expect(compared.getByRole("listitem").nth(1)).toContainText("too close to call");
  await saved(page);
  await page.reload();
  await expect(compared.getByRole("listitem").first()).toContainText("AB is longer");
  await expectAccessible(page);
  await page.goto(`${address}${job}/square`);
  // Pieces are no frame: nothing of them shows as squareness.
  await expect(page.getByRole("button", { name: "Keep AB" })).toBeVisible();
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText("Round 1 at the gate: cut")).toBeVisible();
});
