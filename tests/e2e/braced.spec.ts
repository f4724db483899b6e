import type { DrawnFrame } from "@/core/frame";
import { drawn, squareTube, started } from "../support/drawnFrames";
import { expect, saved, test } from "./fixtures";

test("a brace in a corner: seams that are there, one that it covers, diagonals that differ as drawn", async ({
  page,
  address,
}) => {
  const made = async (name: string, drawing: DrawnFrame): Promise<string> => {
    const data = { name, units: "mm", origin: "test", drawn: drawing };
    const answer = await page.request.post(`${address}/api/jobs`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return `${address}/jobs/${((await answer.json()) as { id: string }).id}`;
  };
  const gate = await made("Braced gate", started("gate leaf", { length: 1100, width: 1500 }, squareTube(30, 2)));
  await page.goto(`${gate}/weld`);
  const order = page.getByRole("list", { name: "Order of work" });
  await expect(order.getByText("Weld C, inside corner")).toBeVisible();
  // The brace's foot fills that corner, and stands on either rail with the wall that looks away from it.
  await expect(order.getByText("Weld A, inside corner")).toHaveCount(0);
  await expect(order.getByText(/^Weld X1 on DA, /)).toHaveText([/bottom face/, /side toward CD/, /top face/]);
  await expect(order.getByText(/^Weld X1 on AB, /)).toHaveText([/bottom face/, /side toward BC/, /top face/]);
  await page.goto(`${gate}/frame`);
  await page.getByRole("button", { name: /^Joint \d+ found/ }).click();
  await page.getByRole("combobox", { name: /^Joint/ }).selectOption("A");
  const inside = page.getByRole("checkbox", { name: /Bead on the inside/ });
  await expect(inside).not.toBeChecked();
  await expect(page.getByText("X1 covers it: no torch comes there once that is on, so it gets no bead")).toBeVisible();
  await inside.click();
  await expect(page.getByText("Move it before X1 in the order of work.")).toBeVisible();
  await saved(page);
  await page.goto(`${gate}/weld`);
  await expect(order.getByText("Weld A, inside corner")).toBeVisible();
  await expect(page.getByText(/No torch comes there any more by then: A, inside corner, under X1\./)).toBeVisible();

  // Four sides that lean: their diagonals differ by 397 mm as drawn, and nothing fails for that.
  const leaning = await made(
    "Leaning panel",
    drawn({
      AB: [
        [0, 0, 0],
        [1200, 0, 0],
      ],
      BC: [
        [1200, 0, 0],
        [980, 700, 0],
      ],
      CD: [
        [980, 700, 0],
        [-220, 700, 0],
      ],
      DA: [
        [-220, 700, 0],
        [0, 0, 0],
      ],
    }),
  );
  await page.goto(`${leaning}/weld`);
  const passes = page.locator("section").filter({ has: page.getByRole("heading", { name: "Will it pass?" }) });
  await expect(passes).toContainText(/Diagonals apart, beyond the drawing/);
  await expect(passes).toContainText(/nearly sure|\d\d in 100/);
  await expect(page.getByText("is likely to fail")).toHaveCount(0);
  await page.goto(`${leaning}/bed`);
  await expect(page.getByLabel("R3 from its left")).toBeVisible();
  await expect(page.getByLabel("R1 from its left")).not.toHaveValue("20");
});
