// What devices wait for: another's reading, a start without a server, a full outbox. node --import tsx tests/bench/devices.ts
import { performance } from "node:perf_hooks";
import { chromium } from "@playwright/test";
import { v4 as uuid } from "uuid";
import { startApp } from "../support/app";

const PUSHES = 25;
const STARTS = 5;
const BOX = 500;
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? Number.NaN;
const at = () => new Date().toISOString();

const app = await startApp();
const post = async (path: string, body: unknown) => {
  const answer = await fetch(`${app.address}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(body),
  });
  if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`);
  return (await answer.json()) as { id: string };
};
const note = (text: string) => ({ kind: "note", id: uuid(), at: at(), origin: "another, bench", text });
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  chromiumSandbox: false,
  args: ["--disable-gpu", "--disable-background-networking"],
});
try {
  const { id } = await post("/api/jobs", { name: "Devices", units: "mm", origin: "bench" });
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(`${app.address}/jobs/${id}/log`);
  await page.locator("[data-save=saved]").waitFor();
  await page.waitForTimeout(3000);

  const pushes: number[] = [];
  for (let i = 0; i < PUSHES; i++) {
    const text = `push ${uuid()}`;
    const seen = page.getByText(text).waitFor();
    const from = performance.now();
    await post(`/api/jobs/${id}/entries`, { since: 2 ** 31, entries: [note(text)] });
    await seen;
    pushes.push(performance.now() - from);
    await page.waitForTimeout(137);
  }
  console.log(
    `another's entry on the screen, from its sending: ${median(pushes).toFixed(0)} ms at the median of ${PUSHES}`,
  );

  // Five hundred entries that a closed page left on this device.
  await page.goto(`${app.address}/shelf`);
  await page.evaluate(
    ({ key, entries }) =>
      new Promise<void>((resolve, reject) => {
        const asked = indexedDB.open("mellow-plumb");
        asked.onerror = () => reject(asked.error);
        asked.onsuccess = () => {
          const work = asked.result.transaction("kept", "readwrite");
          work.objectStore("kept").put(entries, key);
          work.oncomplete = () => resolve();
        };
      }),
    { key: `plumb/outbox/${id}/gone`, entries: Array.from({ length: BOX }, (_, i) => note(`left ${i}`)) },
  );
  const before = performance.now();
  await page.goto(`${app.address}/jobs/${id}`);
  for (let stored = 0; stored < BOX; ) {
    const answer = await fetch(`${app.address}/api/jobs/${id}`);
    const { job } = (await answer.json()) as { job: { entries: { text?: string }[] } };
    stored = job.entries.filter((e) => e.text?.startsWith("left ")).length;
    if (stored < BOX) await new Promise((resolve) => setTimeout(resolve, 50));
  }
  console.log(
    `an outbox of ${BOX}, from opening the page until all is in the record: ${((performance.now() - before) / 1000).toFixed(1)} s`,
  );

  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.waitForTimeout(3000);
  await app.kill();
  const starts: number[] = [];
  for (let i = 0; i < STARTS; i++) {
    const from = performance.now();
    await page.goto(`${app.address}/jobs/${id}/frame`);
    await page.getByLabel("Length AB, CD").waitFor();
    starts.push(performance.now() - from);
  }
  console.log(
    `a stage that can be used, without a server: ${(median(starts) / 1000).toFixed(2)} s at the median of ${STARTS}`,
  );
} finally {
  await browser.close();
  await app.end();
}
