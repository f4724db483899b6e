import { largeFrame } from "../support/largeFrame";
import { expect, test } from "./fixtures";

test("a forecast that takes long is worked out once: a page that comes later has it at once, its steps too", async ({
  page,
  address,
  watched,
}) => {
  test.setTimeout(180_000);
  const made = await page.request.post(`${address}/api/jobs`, {
    data: { name: "Deck of many joints", units: "mm", origin: "test", drawn: largeFrame(24) },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${address}/jobs/${id}/weld`);
  await expect(page.getByRole("slider")).toBeVisible({ timeout: 120_000 });
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<number>((resolve, reject) => {
          const opening = indexedDB.open("mellow-plumb-forecasts");
          opening.onerror = () => reject(opening.error);
          opening.onsuccess = () => {
            const counting = opening.result.transaction("made").objectStore("made").count();
            counting.onsuccess = () => resolve(counting.result);
            opening.result.close();
          };
        }),
    );
  await expect.poll(kept).toBe(1);
  watched.allow.push(/ERR_INTERNET_DISCONNECTED/);
  let asked = 0;
  await page.route(/worker[^/]*\.js/, (route) => {
    asked++;
    return route.abort("internetdisconnected");
  });
  await page.reload();
  await expect(page.getByRole("slider")).toBeVisible();
  await expect(page.getByTestId("working")).toHaveCount(0);
  expect(asked).toBe(0);
});
