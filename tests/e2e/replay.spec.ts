import { newPlan } from "@/core/job";
import { length } from "@/core/units";
import { sized } from "../support/plans";
import { demoJob, expect, expectAccessible, saved, startJob, test } from "./fixtures";

test("the order replays on the drawing by key, with true numbers and what did most", async ({ page, address }) => {
  const job = await demoJob(page, address, "Ware cart base");
  await page.goto(`${address}${job}/weld`);
  const slider = page.getByRole("slider", { name: "Step of the replay" });
  await expect(slider).toBeVisible();
  const drawn = () => page.getByTestId("moved").getAttribute("d");
  const cold = await drawn();

  await slider.focus();
  await page.keyboard.press("Home");
  await expect(page.getByTestId("now")).toContainText("Clamp what lies on the bed");
  await expect(page).toHaveURL(/step=hold/);
  const row = page.getByRole("table", { name: /Predicted change/ }).getByRole("row", { name: /^AC less BD/ });
  await expect(row).toContainText("0.00");
  const clamped = await drawn();
  expect(clamped).not.toBe(cold);

  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(page.getByTestId("now")).toContainText("Tack A, inside corner");
  await expect(slider).toHaveAttribute("aria-valuetext", /Step 3 of \d+: Tack A, inside corner/);
  await expect(row.getByRole("cell").first()).toHaveText(/^[+−]\d\.\d\d$/);
  expect(await drawn()).not.toBe(clamped);

  await page.keyboard.press("End");
  await expect(page.getByTestId("now")).toContainText("Measure cold");
  // So far and cold are the same frame at the end.
  const [soFar, band] = await Promise.all([
    row.getByRole("cell").nth(1).innerText(),
    row.getByRole("cell").nth(2).innerText(),
  ]);
  expect(Number(band.split(" ")[0]?.replace("−", "-"))).toBeCloseTo(Number(soFar.replace("−", "-")), 2);

  // A quick hand loses no key.
  await slider.focus();
  await page.keyboard.press("Home");
  for (let i = 0; i < 7; i++) await page.keyboard.press("ArrowRight");
  await expect(slider).toHaveAttribute("aria-valuetext", /^Step 8 of/);
  await expect(page.getByTestId("now")).toContainText("Step 8 of");

  await page.getByLabel(/What moved/).selectOption({ label: "side AB" });
  const first = page.getByRole("listitem").filter({ hasText: /Weld/ }).locator("button").first();
  await first.click();
  await expect(page.getByTestId("now")).toContainText("Weld");
  await page.getByText("Set up off nominal").click();
  await expect(page.getByRole("row", { name: /side AB/ })).toContainText("±");
  await expectAccessible(page);

  await page.getByRole("button", { name: "Replay the order" }).click();
  const before = page.url();
  await expect(page).not.toHaveURL(before);
  await page.getByRole("button", { name: "Pause the replay" }).click();
});

test("insides last or first is worked out for the frame when asked, with its numbers, by key", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Ware cart base");
  await page.goto(`${address}${job}/weld`);
  const ask = page.getByRole("button", { name: "Would the insides be better first?" });
  await ask.focus();
  await page.keyboard.press("Enter");
  const told = page.getByTestId("inside-trade").getByRole("listitem");
  await expect(told.nth(0)).toHaveText(
    /^Insides of the corners last, as in this order: AC less BD within ±\s[\d.]+\smm/,
    {
      timeout: 300_000,
    },
  );
  await expect(told.nth(1)).toHaveText(/^Insides first, all else as it is: .*flat within [\d.]+\smm/);
  await expect(told.nth(2)).toHaveText(/^On this frame (better|they are alike)/);
  // What makes the bands wide stands with its numbers too.
  await expect(page.getByText(/lengths: heat that all beads share \d+\s%/)).toBeVisible();
});

test("new settings bring a new prediction, and errors say so", async ({ page, address, watched }) => {
  watched.allow.push(/422/);
  const job = await startJob(page, address, "Hotter");
  await page.goto(`${address}${job}/weld`);
  const loss = page.getByRole("row", { name: /^AB loses/ });
  await expect(loss).toContainText("mm");
  const before = await loss.innerText();
  await page.getByLabel(/Current/).fill("180");
  await page.keyboard.press("Tab");
  await expect(loss).not.toHaveText(before);
  await expect(page.getByText("518 J/mm", { exact: true })).toBeVisible();
  await page.getByLabel(/Tack length/).fill("900");
  await page.keyboard.press("Tab");
  await expect(page.getByText("No prediction while the plan has errors.").first()).toBeVisible();
  // The server does not take it either, and says so.
  await expect(page.locator("[data-save=refused]")).toBeVisible();
  // Back to what the wall asks for.
  await page.getByRole("button", { name: "Back to the usual tack" }).click();
  await expect(page.getByLabel(/Tack length/)).toHaveValue("10");
  await expect(page.getByText(/a little over three times the wall/)).toBeVisible();
  await expect(loss).toContainText("mm");
  await saved(page);
});

test("a long simulation shows its progress, stops at once, and can be taken up again", async ({ page, address }) => {
  const job = await startJob(page, address, "Cattle grid");
  const big = sized(newPlan("Cattle grid", "mm"), {
    length: length("8200"),
    width: length("1200"),
    cross: Array.from({ length: 40 }, (_, i) => ({ id: `M${i + 1}`, at: length(String(200 * (i + 1))) })),
  });
  const answer = await page.request.put(`${address}/api${job}/plan`, {
    data: { baseVersion: 1, plan: big, origin: "test" },
  });
  expect(answer.ok()).toBe(true);
  await page.goto(`${address}${job}/weld`);
  const working = page.getByTestId("working").first();
  await expect(working).toBeVisible();
  await expect(working.getByText(/[1-9]\d?\s%/)).toBeVisible({ timeout: 300_000 });
  // The page answers meanwhile.
  await page.getByRole("button", { name: "Step after" }).click();
  await expect(page.getByTestId("now")).toContainText("Measure four sides");
  await working.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText(/^Stopped:/).first()).toBeVisible();
  await expect(page.getByTestId("moved")).toHaveCount(0);
  await page.getByRole("button", { name: "Work it out" }).first().click();
  await expect(working).toBeVisible();
  await saved(page);
});
