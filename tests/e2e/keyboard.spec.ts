import { expect, saved, test } from "./fixtures";

/** Presses Tab until the focus is on what is looked for. */
async function tabTo(page: import("@playwright/test").Page, name: string | RegExp, most = 90): Promise<void> {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press("Tab");
    const text = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null;
      const label =
        e instanceof HTMLInputElement || e instanceof HTMLSelectElement || e instanceof HTMLTextAreaElement
          ? (e.labels?.[0]?.textContent ?? "")
          : "";
      return `${e?.getAttribute("aria-label") ?? ""}|${label}|${e?.textContent ?? ""}`;
    });
    if (typeof name === "string" ? text.split("|").some((t) => t.trim() === name) : name.test(text)) return;
  }
  throw new Error(`Tab never reached ${name}`);
}

test("the journey by keyboard alone", async ({ page, address }) => {
  test.slow();
  await page.goto(address);
  // Past the list, however long it is.
  await tabTo(page, /^\|\|Start (a|another) job$/, 12);
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name")).toBeFocused();
  await page.keyboard.type("By keys");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}$/);
  await expect(page.locator("header").getByText("By keys")).toBeVisible();

  await page.keyboard.press("Alt+2");
  await expect(page).toHaveURL(/\/frame$/);
  await tabTo(page, /LengthAB, CD|Length AB, CD/);
  await page.keyboard.press("Control+a");
  await page.keyboard.type("1.2 m");
  await tabTo(page, "Add in the widest gap");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("M1 at")).toHaveValue("600");
  await saved(page);
  await page.keyboard.press("Control+z");
  await expect(page.getByLabel("M1 at")).toHaveCount(0);
  await page.keyboard.press("Control+Shift+Z");
  await expect(page.getByLabel("M1 at")).toBeVisible();

  await page.keyboard.press("Alt+6");
  await expect(page).toHaveURL(/\/square$/);
  await expect(page.getByRole("button", { name: "Keep AB" })).toBeVisible();
  await tabTo(page, /^\|AB/);
  for (const value of ["1200.5", "600.5", "1200.5", "600.5", "1344", "1341"]) {
    await page.keyboard.type(value);
    await page.keyboard.press("Enter");
  }
  await expect(page.getByTestId("now")).toContainText("Slide side CD");
  await saved(page);

  await page.keyboard.press("Alt+7");
  await expect(page).toHaveURL(/\/weld$/);
  await tabTo(page, "Done");
  await page.keyboard.press("Space");
  await expect(page.getByTestId("now")).toContainText("Tack A");
  await saved(page);

  await page.keyboard.press("Control+k");
  await expect(page.getByRole("dialog", { name: "Go to or do" })).toBeVisible();
  await page.keyboard.type("log");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/log$/);
  await page.keyboard.press("Control+/");
  await expect(page.getByRole("dialog", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
});
