import { BENCH, demoJob, expect, expectAccessible, saved, startJob, test } from "./fixtures";

test("a frame is laid out: what holds it is told, changed, and told again", async ({ page, address }) => {
  const job = await startJob(page, address, "Laid out");
  // The first step at the bench leads to it.
  await page.goto(`${address}${job}/weld?step=hold`);
  await page.getByRole("link", { name: "What goes where" }).click();
  await expect(page.getByTestId("fixture-needs")).toContainText("8 stops, 1 end stop, 4 clamps");
  const checks = page.getByTestId("fixture-checks");
  await expect(checks).toContainText("Nothing moves any more: all 12 motions of 4 members are stopped");
  await expect(checks).toContainText("Every clamp presses its member onto both of its stops.");
  await expect(page.getByTestId("fixture-needs")).toContainText("off nominal", { timeout: 300_000 });
  await expect(checks).toContainText("it comes free of every stop");
  // A clamp beyond its stops presses on one alone.
  const along = page.getByLabel("AB clamp, along AB");
  await along.fill("20");
  await along.press("Tab");
  await expect(checks).toContainText("Not pressed onto both of its stops: AB.");
  await page.getByRole("button", { name: "AB clamp where it was proposed" }).click();
  await expect(checks).toContainText("Every clamp presses");
  // The same on the drawing, by key and by hand.
  const mark = page.getByRole("slider", { name: "AB clamp, on the drawing" });
  const before = Number(await mark.getAttribute("aria-valuenow"));
  await mark.focus();
  await page.keyboard.press("ArrowRight");
  await expect(mark).toHaveAttribute("aria-valuenow", String(before + 10));
  await expect(along).toHaveValue(String(before + 10));
  const box = await mark.boundingBox();
  if (!box) throw new Error("no mark");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 190, box.y + box.height / 2, { steps: 4 });
  await expect(checks).toContainText("Not pressed onto both of its stops: AB.");
  await page.mouse.up();
  await expect(along).not.toHaveValue(String(before + 10));
  await page.getByRole("button", { name: "AB clamp where it was proposed" }).click();
  await expect(checks).toContainText("Every clamp presses");
  // What is left out is missed, and put back.
  await page.getByRole("button", { name: "Leave out AB stop 1" }).click();
  await expect(checks).toContainText("Not pressed onto both of its stops: AB.");
  await page.getByRole("button", { name: "Put back AB stop 1" }).click();
  await expect(checks).toContainText("Every clamp presses");
  // In holes, with packing; nonsense is kept and named.
  await page.getByText("Plate with holes").click();
  await expect(page.getByTestId("elements")).toContainText(/hole -?\d+, -?\d+ with \d+\.\d\smm of packing/);
  const pitch = page.getByLabel("Holes apart");
  await pitch.fill("fifty");
  await pitch.press("Tab");
  await expect(page.getByText(/Cannot read/)).toBeVisible();
  await pitch.fill("1");
  await pitch.press("Tab");
  await expect(page.getByText(/^Not usable: Holes are 5 to 1000\smm apart/)).toBeVisible();
  await pitch.fill("25");
  await pitch.press("Tab");
  // Less on the shelf than is wanted.
  await page.getByLabel("Stops", { exact: true }).fill("5");
  await page.getByLabel("Stops", { exact: true }).press("Tab");
  await expect(page.getByText("9 stops are wanted here, 5 are there")).toBeVisible();
  await saved(page);
  await expectAccessible(page);
  await page.reload();
  await expect(page.getByLabel("Holes apart")).toHaveValue("25");
  await page.getByRole("link", { name: "On paper" }).click();
  await expect(page.getByRole("heading", { name: "Fixture: Laid out" })).toBeVisible();
  await expect(page.getByTestId("fixture-sheet").getByRole("listitem")).toHaveCount(13);
  await expect(page.getByTestId("pick-list")).toContainText(/5\s*stops/);
  await expect(page.getByTestId("pick-list")).toContainText(/4\s*screw clamps/);
  await expectAccessible(page);
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(1280);
});

test("two plates are bent over a shim, trial by trial, until they come out straight", async ({ page, address }) => {
  const job = await startJob(page, address, "Plates");
  await page.goto(`${address}${job}/layout`);
  await page.getByRole("button", { name: /Two plates over a shim/ }).click();
  await page.getByRole("button", { name: "Lay out two plates" }).click();
  const plates = page.getByTestId("plate-bow");
  await expect(plates).toContainText("weld one over no shim");
  const keep = async (shim: string, left: string) => {
    await plates.getByLabel("Tried over").fill(shim);
    await plates.getByLabel("Left when cold, as bent above 0").fill(left);
    await plates.getByLabel("Left when cold, as bent above 0").press("Tab");
    await plates.getByRole("button", { name: "Keep the trial" }).click();
  };
  await keep("0", "-10");
  await expect(plates).toContainText(/Free they bow by 10\.0\smm/);
  await expect(plates).toContainText(/To begin with, a shim of \d+\.\d\smm/);
  await keep("20", "-2");
  // By the line through both: 20 + 2 / 0.4.
  await expect(plates).toContainText(/By what was tried: 25\.0\smm next/);
  await plates.getByLabel("Thickness").fill("3 m");
  await plates.getByLabel("Thickness").press("Tab");
  await expect(plates.getByText(/The thickness of plates is/)).toBeVisible();
  await plates.getByLabel("Thickness").fill("3");
  await plates.getByLabel("Thickness").press("Tab");
  await saved(page);
  await expectAccessible(page);
});

test("a frame is laid on trestles, on slots, on a floor, with what the shelf has", async ({ page, address }) => {
  const job = await startJob(page, address, "In the yard");
  await page.goto(`${address}${job}/layout`);
  const checks = page.getByTestId("fixture-checks");
  const elements = page.getByTestId("elements");
  await page.getByText("Trestles or bars", { exact: true }).click();
  await expect(checks).toContainText("so it tips or lies in the air: BC, DA.");
  await expect(elements).toContainText("on T1, from A");
  // A bar under each of the two.
  const bars = page.getByTestId("bearers");
  for (const [id, x] of [
    ["T4", "20"],
    ["T5", "980"],
  ] as const) {
    await bars.getByRole("button", { name: "One more bar" }).click();
    for (const end of ["from", "to"]) {
      await bars.getByLabel(`${id} ${end}, along`).fill(x);
      await bars.getByLabel(`${id} ${end}, along`).press("Tab");
    }
  }
  await expect(checks).toContainText("Trestles or bars carry every member, 4 of 4");
  // Nonsense is kept and named at its field.
  const far = bars.getByLabel("T4 to, across");
  await far.fill("90 m");
  await far.press("Tab");
  await expect(
    page.getByText(/^Not usable: T4 is too far away for what a frame lies on\. Check the unit/),
  ).toBeVisible();
  await far.fill("660");
  await far.press("Tab");
  await saved(page);
  await expectAccessible(page);
  // The bed's rests are where it lies on them.
  await page.goto(`${address}${job}/bed`);
  await page.getByRole("button", { name: "Where it lies on the trestles" }).click();
  await expect(page.getByRole("button", { name: "Take R10 out" })).toBeVisible();
  await saved(page);
  await page.goto(`${address}${job}/layout`);
  await page.getByText("Plate with slots").click();
  await expect(elements).toContainText(/slot -?\d+, .+ along it/);
  await expect(bars).toBeHidden();
  await page.getByText("Bare floor").click();
  await expect(elements).toContainText("A block with a weight on it, or braced.");
  await expect(checks).toContainText("read it under every rest on the stage Bed");
  await expect(page.getByTestId("held").getByLabel("By its own weight")).toBeChecked();
  await expect(page.getByTestId("held").getByLabel("Clamped flat")).toHaveCount(0);
  await page.getByLabel("Blocks", { exact: true }).fill("1");
  await page.getByLabel("Blocks", { exact: true }).press("Tab");
  await page.getByLabel("Angle plates").fill("1");
  await page.getByLabel("Angle plates").press("Tab");
  await expect(page.getByText("9 stops are wanted here, 2 are there, 1 of them something else")).toBeVisible();
  await expect(elements).toContainText("An angle plate with a weight on it.");
  // What somebody has of his own goes first, by its name; what is no count is kept at its field.
  const own = page.getByTestId("own-things");
  await own.getByRole("button", { name: "Something of your own" }).click();
  await own.getByLabel("What E1 is").fill("Cast corner");
  const count = own.getByLabel("How many of E1");
  await count.fill("a few");
  await count.press("Tab");
  await expect(own.getByText('Cannot read "a few": give a plain number.')).toBeVisible();
  await count.fill("4");
  await count.press("Tab");
  await expect(elements).toContainText("Here Cast corner.");
  await expect(page.getByText("9 stops are wanted here, 6 are there, 1 of them something else")).toBeVisible();
  await own.getByLabel("E1 serves as").selectOption("a clamp");
  await expect(page.getByText("9 stops are wanted here, 2 are there, 1 of them something else")).toBeVisible();
  await saved(page);
  await expectAccessible(page);
  await page.setViewportSize(BENCH);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(BENCH.width);
  await page.reload();
  await expect(page.getByLabel("Blocks", { exact: true })).toHaveValue("1");
  await expect(own.getByLabel("What E1 is")).toHaveValue("Cast corner");
  await own.getByRole("button", { name: "Take E1 off the shelf" }).click();
  await expect(elements).not.toContainText("Cast corner");
  await saved(page);
});

test("ways of holding are looked at each in the order that suits it, and both are taken at once", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Held and ordered");
  await page.goto(`${address}${job}/layout`);
  const held = page.getByTestId("held");
  await held.getByText("Each in the order that suits it").click();
  await held.getByRole("button", { name: "Compare ways of holding it" }).click();
  await expect(page.getByTestId("holding-advice")).toContainText("Chance that every limit is kept", {
    timeout: 300_000,
  });
  const suits = page.getByRole("list", { name: "Ways of holding it" }).getByText(/^Suits it: /);
  // As planned is a school like others: where nothing suits better, nothing is said to.
  for (const words of await suits.allTextContents()) expect(words).toMatch(/, then /);
  const both = page.getByRole("button", { name: /^Hold it so/ }).filter({ hasText: "Hold and weld it so" });
  // The usual order is not what suits this frame best.
  await expect(both.first()).toBeVisible();
  const words = (await suits.first().textContent())?.replace(/^Suits it: |\.$/g, "") ?? "";
  await both.first().click();
  await saved(page);
  await page.goto(`${address}${job}/weld/print`);
  await expect(page.getByText(words, { exact: false }).first()).toBeVisible();
});

test("ways of holding it are compared, one is taken, and stands in the order until it is cut off", async ({
  page,
  address,
}) => {
  const job = await startJob(page, address, "Held");
  await page.goto(`${address}${job}/layout`);
  const held = page.getByTestId("held");
  await held.getByRole("button", { name: "Compare ways of holding it" }).click();
  await expect(page.getByTestId("holding-advice")).toContainText("Chance that every limit is kept", {
    timeout: 300_000,
  });
  await expect(page.getByTestId("way-planned")).toContainText("Clamped flat, as planned");
  for (const way of ["loose", "weight", "stops", "crossed", "corners", "drawn"])
    await expect(page.getByTestId(`way-${way}`)).toContainText(/AC less BD .+ to /);
  await expect(page.getByTestId("way-loose")).toContainText("nothing to speak of is let go");
  await held.getByRole("button", { name: "Hold it so: Two strongbacks crossed, loose" }).click();
  // Of a frame that is held otherwise now, the comparison is none.
  await expect(page.getByTestId("holding-advice")).toBeHidden();
  await expect(held.getByText("Loose", { exact: true })).toBeVisible();
  const s1 = page.getByTestId("bar-S1");
  const along = s1.getByLabel("S1, along AB");
  await along.fill("5 m");
  await along.press("Tab");
  await expect(s1).toContainText(
    /AB is .+ long, and S1 sits between .+: from 20\smm to 980\smm along, not at 5000\smm/,
  );
  await along.fill("200");
  await along.press("Tab");
  await s1.getByLabel("S1 goes on").selectOption("tacked");
  await saved(page);
  await expectAccessible(page);
  await page.reload();
  await expect(along).toHaveValue("200");
  await page.goto(`${address}${job}/weld?step=brace%2FS1`);
  await expect(page.getByTestId("now")).toContainText(/Tack strongback S1 on: AB, 200\smm along/);
  await page.goto(`${address}${job}/weld?step=unbrace%2FS1`);
  await expect(page.getByTestId("now")).toContainText("Cut strongback S1 off");
  await expect(page.getByTestId("let-go")).toContainText(/Strongback S1 holds about .+, up to .+N/, {
    timeout: 300_000,
  });
  await page.goto(`${address}${job}/layout/print`);
  await expect(page.getByText(/Tack strongback S2 on/)).toBeVisible();
  await page.goto(`${address}${job}/layout`);
  await page.getByRole("button", { name: "Take S1 away" }).click();
  await expect(s1).toBeHidden();
});

test.describe("at the bench", () => {
  test.use({ viewport: BENCH });
  test("a rail that bows is bent against it, trial by trial, and the page is no wider than the glass", async ({
    page,
    address,
  }) => {
    await page.goto(`${address}${await demoJob(page, address, "Drying-loft deck")}/layout`);
    await page.getByRole("button", { name: /Bent against the bow/ }).click({ timeout: 300_000 });
    const panel = page.getByTestId("back-bow");
    await expect(panel).toContainText(/likely to bow by \d/);
    await page.getByRole("button", { name: "Keep the trial" }).click();
    await expect(panel.getByText("Give the shim and what was left.")).toBeVisible();
    for (const [shim, left] of [
      ["20", "-2"],
      ["30", "1"],
    ] as const) {
      await panel.getByLabel("Tried over").fill(shim);
      await panel.getByLabel("Left when cold, as bent above 0").fill(left);
      await page.getByRole("button", { name: "Keep the trial" }).click();
    }
    await expect(panel).toContainText(/By what was tried: 26\.7\smm next\./);
    await expectAccessible(page);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(BENCH.width);
    for (const shim of ["20 mm", "30 mm"])
      await page.getByRole("button", { name: `Take away the trial over ${shim}` }).click();
    await expect(panel.getByRole("list", { name: "Trials" })).toHaveCount(0);
    await saved(page);
  });
});
