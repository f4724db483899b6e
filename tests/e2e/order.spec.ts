import { BENCH, expect, expectAccessible, saved, startJob, test } from "./fixtures";

test("an order is chosen by school, compared by its chance, and taken", async ({ page, address }) => {
  const job = await startJob(page, address, "By school");
  await page.goto(`${address}${job}/weld`);
  const panel = page.getByTestId("order-panel");
  await expect(panel.getByText("Corners then field: Nothing lies between the corners of this frame.")).toBeVisible();
  const list = page.getByRole("list", { name: "Order of work" });
  await panel.getByLabel("Tacking").selectOption("Outside first");
  await expect(list.getByRole("button").nth(2)).toContainText("Tack A, outside corner");
  await panel.getByLabel("Welding").selectOption("Strength first");
  await expect(panel.getByText(/The fillets that carry first/)).toBeVisible();
  await saved(page);

  await panel.getByRole("button", { name: "Compare the schools" }).click();
  await expect(page.getByTestId("order-advice")).toContainText(/Chance that every limit is kept/, { timeout: 300_000 });
  const rows = page.getByTestId("outlooks").getByRole("row");
  await expect(rows.filter({ hasText: "as planned" })).toContainText("Outside first, then strength first");
  const first = page
    .getByTestId("outlooks")
    .getByRole("button", { name: /^Take / })
    .first();
  const name = ((await first.getAttribute("aria-label")) ?? "").replace("Take ", "");
  await first.click();
  await expect(rows.filter({ hasText: "as planned" })).toContainText(name);
  await saved(page);
  // The record of that change arrives, and what was compared still stands.
  await page.evaluate(() => window.dispatchEvent(new Event("focus")));
  await page.waitForResponse((r) => r.url().includes("/news"));
  await expect(rows.filter({ hasText: "as planned" })).toContainText(name);
  await page.reload();
  await expect(panel.getByLabel("Tacking")).toHaveValue(name.split(",")[0]?.toLowerCase() ?? "");
  await expectAccessible(page);
});

test("a search beats or equals the schools, ends when it is told to, and its order is worked as it stands", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Searched");
  await page.goto(`${address}${job}/weld`);
  const panel = page.getByTestId("order-panel");
  await panel.getByRole("button", { name: "Search for a better order" }).click();
  await panel.getByRole("button", { name: "Enough: take the best so far" }).click({ timeout: 300_000 });
  const computed = page.getByRole("button", { name: /^Take Computed order/ });
  await expect(page.getByTestId("order-advice")).toBeVisible({ timeout: 300_000 });
  await computed.click();
  await expect(page.getByTestId("now")).toContainText("computed order");
  await saved(page);
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await expect(page.getByText("1 of ")).toBeVisible();
  // Faces below cannot be welded without a turn: it says so.
  await panel.getByLabel("In the search, turned over at most").selectOption("never");
  await panel.getByRole("button", { name: "Search for a better order" }).click();
  await expect(page.getByTestId("order-advice")).toContainText("no order that turns it over so seldom", {
    timeout: 300_000,
  });
});

test("an order is changed step by step, by key too, and what is wrong with it is named", async ({ page, address }) => {
  const job = await startJob(page, address, "Own order");
  await page.goto(`${address}${job}/weld`);
  const panel = page.getByTestId("order-panel");
  await panel.getByRole("button", { name: "Change it step by step" }).click();
  const rows = page.getByTestId("order-editor").getByRole("listitem");
  // The editor comes when it is asked for.
  await expect(rows.nth(2)).toContainText("Tack A, inside corner");
  const before = await rows.count();
  // Later, by its button.
  await rows.nth(2).getByRole("button", { name: "Later: Tack A, inside corner" }).click();
  await expect(rows.nth(3)).toContainText("Tack A, inside corner");
  // By key: taken up, moved, put down.
  await rows
    .nth(3)
    .getByRole("button", { name: /^Drag step/ })
    .focus();
  await page.keyboard.press("Space");
  const said = page.getByRole("status").filter({ hasText: /Taken up|place/ });
  await expect(said).toHaveText(/Taken up: Tack A, inside corner/);
  await expect(rows.nth(3).getByRole("button", { name: /^Drag step/ })).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("ArrowDown");
  await expect(said).toHaveText("Now at place 5.");
  await page.keyboard.press("Space");
  await expect(rows.nth(4)).toContainText("Tack A, inside corner");
  // What is left out is named, and put in again.
  await rows.getByRole("button", { name: "Leave out: Weld A, top face" }).click();
  await expect(rows).toHaveCount(before - 1);
  await expect(panel.getByText("Not welded in this order: A, top face.")).toBeVisible();
  await page.getByRole("button", { name: "Put in" }).click();
  await expect(rows).toHaveCount(before);
  await expect(panel.getByText("Not welded in this order")).toHaveCount(0);
  await panel.getByRole("button", { name: "Leave the order so" }).click();
  await expect(panel.getByText(/^Own order, begun from hinge first/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("list", { name: "Order of work" }).getByRole("button").nth(4)).toContainText(
    "Tack A, inside corner",
  );
  // A school lays it anew.
  await panel.getByLabel("Welding").selectOption("Joint by joint");
  await expect(panel.getByText(/Along the layout/)).toBeVisible();
});

test.describe("on a phone", () => {
  test.use({ viewport: BENCH });
  test("an order that is being changed is no wider than the glass", async ({ page, address }) => {
    const job = await startJob(page, address, "Own, on a phone");
    await page.goto(`${address}${job}/weld`);
    // Pressed before the page is live, it does nothing: it is pressed again.
    const change = page.getByRole("button", { name: "Change it step by step" });
    await expect(async () => {
      if (await change.isVisible()) await change.click();
      await expect(page.getByTestId("order-editor").getByRole("listitem").first()).toBeVisible({ timeout: 5000 });
    }).toPass({ timeout: 300_000 });
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(BENCH.width);
    await expectAccessible(page);
  });
});

test("what is welded tells how long it still wants to cool, by its ticks", async ({ page, address }) => {
  const job = await startJob(page, address, "Cooling");
  await page.goto(`${address}${job}/weld?step=wait%2Ftouch`);
  const cooling = page.getByTestId("cooling");
  await expect(cooling).toContainText(/Welded without a pause it can be touched about \d+\smin later/);
  await expect(page.getByTestId("order-time")).toContainText(/Takes about .*: arc \d+\smin, cooling \d+\smin/);
  const list = page.getByRole("list", { name: "Order of work" });
  await list.getByRole("button", { name: /Weld B, outside corner/ }).click();
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await list.getByRole("button", { name: /Wait until all four corners can be touched/ }).click();
  await expect(cooling).toContainText(/About \d+\smin more until all of it can be touched; B is the last/);
});

test("the order goes on paper, every step with its box, gates with lines to write on", async ({ page, address }) => {
  const job = await startJob(page, address, "On paper");
  await page.goto(`${address}${job}/weld`);
  await page.getByTestId("order-panel").getByRole("link", { name: "On paper" }).click();
  await expect(page.getByRole("heading", { name: "Order of work: On paper" })).toBeVisible();
  const steps = page.getByTestId("order-sheet").getByRole("listitem");
  await expect(steps.filter({ hasText: "Tack A, inside corner" })).toContainText("☐");
  await expect(steps.filter({ hasText: "Measure cold" })).toContainText("height D");
  await expectAccessible(page);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("button", { name: "Print" })).toBeHidden();
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(page.viewportSize()?.width ?? 0);
});

test("a weld that went otherwise is kept, laid once more in the order, and warms its corner", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Went otherwise");
  await page.goto(`${address}${job}/weld`);
  const list = page.getByRole("list", { name: "Order of work" });
  const now = page.getByTestId("now");
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await list.getByRole("button", { name: "Tack A, inside corner" }).click();
  await expect(page.getByTestId("at-seam")).toContainText(/long, vertical: MAG .*\sV, .*\sA/);
  await expect(page.getByTestId("does-to-frame")).toContainText(/It (moves|lifts|lowers|should move)/, {
    timeout: 300_000,
  });
  await page.getByRole("button", { name: "Went otherwise" }).click();
  const otherwise = page.getByTestId("went-otherwise");
  await otherwise.getByRole("button", { name: /Burnt through/ }).click();
  await expect(otherwise).toContainText("Say what happened");
  await otherwise.getByLabel("What happened").fill("thin spot");
  await otherwise.getByRole("button", { name: /Burnt through/ }).click();
  await expect(list.getByRole("button", { name: /Tack A, inside corner, once more\s*, done/ })).toBeVisible();
  await expect(now).toContainText("own order");
  await expect(page.getByTestId("warmth")).toContainText(/Too hot to touch: A/);
  await expect(page.getByTestId("worked-otherwise")).toHaveCount(0);
  // Out of turn: said, and taken.
  await list.getByRole("button", { name: "Tack D, inside corner" }).click();
  await page.getByRole("button", { name: "Done", exact: true }).click();
  await page.getByRole("button", { name: "Take the order as it was worked" }).click();
  await expect(page.getByTestId("worked-otherwise")).toHaveCount(0);
  await expect(list.getByRole("button").nth(3)).toContainText("Tack D, inside corner");
  await expectAccessible(page);
  await saved(page);
  await page.goto(`${address}${job}/log`);
  await expect(page.getByText(/Tack A, inside corner” was laid once more: thin spot/)).toBeVisible();
});

test("squaring up once more is planned and worded; a test bead proves settings, which are taken", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Cut and set");
  await page.goto(`${address}${job}/weld`);
  const list = page.getByRole("list", { name: "Order of work" });
  await page.getByRole("radio", { name: "Cut and set once more, all tacked" }).click();
  await expect(list).toContainText("cut the tacks that hold it off, set it square and flat");
  const beads = page.getByTestId("test-beads");
  await page.getByLabel("Current").fill("131");
  await page.getByLabel("Current").press("Tab");
  await beads.getByRole("button", { name: /^Test beads/ }).click();
  await beads.getByLabel("Note").fill("on scrap");
  await beads.getByRole("button", { name: "Log this test bead" }).click();
  await expect(beads.getByRole("listitem").first()).toContainText(/keep: .*131\sA.*fillet, flat.*on scrap/);
  await expect(beads).toContainText("Proven here by a test bead");
  await page.getByRole("button", { name: "Back to settings to begin with" }).click();
  await expect(beads).toContainText(/Proven here on .*131\sA/);
  await beads.getByRole("button", { name: "Use them" }).click();
  await expect(page.getByLabel("Current")).toHaveValue("131");
  await expectAccessible(page);
  await saved(page);
});

test("a seam is laid in its own way, waits for another, and two weld at once; the paper says so", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Laid so");
  await page.goto(`${address}${job}/weld?step=bead%2FB%2Ftop`);
  const now = page.getByTestId("now");
  await expect(now).toContainText("from outside to inside");
  await page.getByRole("button", { name: /How it is laid/ }).click();
  const how = page.getByTestId("seam-how");
  await how.getByText("From inside to outside").click();
  await how.getByLabel("Laid", { exact: true }).selectOption("in 3 lengths");
  await how.getByLabel("Process").selectOption("TIG");
  await expect(now).toContainText(/from inside to outside, in 3 lengths of about \d+\smm.*TIG/);
  // Its settings are wanted now, and are kept once they are read.
  const tig = page.getByRole("group", { name: "TIG" });
  await expect(tig).toContainText("To begin with");
  await tig.getByLabel("Current").fill("95");
  await tig.getByLabel("Current").press("Tab");
  await expect(now).toContainText(/, 95\sA/);
  await how.getByLabel("Not before").selectOption("bead at A, inside corner");
  await how.getByLabel("That").selectOption("is cold");
  await how.getByRole("button", { name: "Let it wait" }).click();
  const panel = page.getByTestId("order-panel");
  await expect(panel).toContainText(
    "Not kept in this order: bead at B, top face: not before bead at A, inside corner is cold.",
  );
  await panel.getByRole("button", { name: /Who welds, and what waits/ }).click();
  await panel.getByText("Two weld at once").click();
  await expect(page.getByTestId("at-once")).toContainText(/of two lays it/);
  await expect(page.getByTestId("order-time")).toContainText("for two who weld at different joints at once");
  await saved(page);
  await expectAccessible(page);

  // What is compared keeps it, and when it is taken nothing is left to say.
  await panel.getByRole("button", { name: "Compare the schools" }).click();
  await expect(page.getByTestId("order-advice")).toContainText(/Chance that every limit is kept/, { timeout: 300_000 });
  await expect(page.getByTestId("outlooks").getByRole("row").nth(1)).toContainText(/cooling .*measuring/);
  await expect(page.getByTestId("outlooks").getByRole("row").nth(1)).toContainText("Kept most seldom: ");
  await page
    .getByTestId("outlooks")
    .getByRole("button", { name: /^Take Computed order/ })
    .first()
    .click();
  await expect(panel.getByText("Not kept in this order")).toHaveCount(0);
  await saved(page);
  await page.goto(`${address}${job}/weld/print`);
  const line = page.getByTestId("order-sheet").getByRole("listitem").filter({ hasText: "Weld B, top face" });
  await expect(line).toContainText(/welder [12], from inside to outside, in 3 lengths/i);
  // The hold is taken away again, and the log has kept it all.
  await page.goto(`${address}${job}/weld`);
  await panel.getByRole("button", { name: /Who welds, and what waits/ }).click();
  await panel.getByRole("button", { name: /^Take away: Bead at B, top face/ }).click();
  await expect(panel.getByRole("list", { name: "Welds that wait" })).toHaveCount(0);
  await saved(page);
});
