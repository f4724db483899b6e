// Takes the pictures in docs/screenshots from a running demo: npm run screenshots [ADDRESS] [NAME…]
import { mkdirSync } from "node:fs";
import { chromium } from "@playwright/test";

const address = process.argv[2]?.startsWith("http") ? process.argv[2] : "http://127.0.0.1:4270";
const wanted = process.argv.slice(2).filter((a) => !a.startsWith("http") && !a.startsWith("--"));
const folder = process.argv.find((a) => a.startsWith("--to="))?.slice(5) ?? "docs/screenshots";
const DESK = { width: 1280, height: 800 };
const BENCH = { width: 390, height: 844 };

const { jobs } = (await (await fetch(`${address}/api/jobs`)).json()) as { jobs: { id: string; name: string }[] };
const job = (name: string): string => {
  const found = jobs.find((j) => j.name === name);
  if (!found) throw new Error(`The demo has no job "${name}": start script/demo with fresh data.`);
  return `/jobs/${found.id}`;
};
const cart = job("Ware cart base");

const VIEWS: {
  name: string;
  path: string;
  size: typeof DESK;
  heading?: string;
  press?: string[];
  compare?: boolean;
  /** Taken once every step is worked through. */
  replay?: boolean;
}[] = [
  { name: "jobs", path: "/", size: DESK },
  { name: "job", path: cart, size: DESK },
  { name: "frame", path: `${job("Drying-loft deck")}/frame`, size: DESK },
  { name: "frame-drawn", path: `${job("Kiln-shelf stand")}/frame`, size: DESK, press: ["as a body"] },
  { name: "cut", path: `${cart}/cut`, size: DESK },
  { name: "bars", path: `${job("Drying-loft deck")}/cut`, size: DESK, heading: "Test of the saw" },
  { name: "order", path: `${job("Kiln-shelf stand")}/weld`, size: DESK, heading: "Which order", compare: true },
  { name: "bed", path: `${cart}/bed`, size: DESK },
  { name: "survey", path: `${cart}/bed`, size: DESK, heading: "The bed from above" },
  { name: "shelf", path: "/shelf", size: DESK },
  { name: "learned", path: "/learned", size: DESK },
  { name: "layout", path: `${cart}/layout`, size: DESK },
  { name: "square", path: `${job("Kiln-shelf stand")}/square`, size: DESK },
  { name: "weld", path: `${cart}/weld`, size: DESK, replay: true },
  { name: "check", path: `${job("Courtyard gate leaf")}/check`, size: DESK },
  { name: "log", path: `${job("Courtyard gate leaf")}/log`, size: DESK },
  { name: "bench-bed", path: `${cart}/bed?round=new`, size: BENCH },
  { name: "bench-square", path: `${job("Kiln-shelf stand")}/square`, size: BENCH },
  { name: "bench-weld", path: `${cart}/weld`, size: BENCH, replay: true },
];

mkdirSync(folder, { recursive: true });
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", chromiumSandbox: false });
for (const view of VIEWS.filter((v) => wanted.length === 0 || wanted.includes(v.name))) {
  const page = await browser.newPage({
    viewport: view.size,
    colorScheme: "light",
    timezoneId: "UTC",
    locale: "en-GB",
    serviceWorkers: "block",
  });
  await page.addInitScript(() => localStorage.setItem("plumb/device", JSON.stringify({ who: "Odo" })));
  await page.goto(address + view.path, { waitUntil: "load" });
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(1800);
  if (view.replay) await page.getByRole("slider").waitFor({ timeout: 120_000 });
  for (const name of view.press ?? []) {
    await page.getByRole("radio", { name }).click();
    await page.waitForTimeout(2500);
  }
  if (view.heading) {
    const heading = page.getByRole("heading", { name: view.heading });
    // Pictures come when they are seen.
    for (let turn = 0; turn < 12 && (await heading.count()) === 0; turn++) {
      await page.mouse.wheel(0, 400);
      await page.waitForTimeout(300);
    }
    await heading.evaluate((e) => e.scrollIntoView({ block: "start" }));
    await page.waitForTimeout(700);
  }
  if (view.compare) {
    await page.getByRole("button", { name: "Compare the schools" }).click();
    const advice = page.getByTestId("order-advice");
    await advice.waitFor({ timeout: 120_000 });
    await advice.evaluate((e) => e.scrollIntoView({ block: "start" }));
    await page.waitForTimeout(700);
  }
  await page.screenshot({ path: `${folder}/${view.name}.png` });
  await page.close();
  console.log(`${folder}/${view.name}.png`);
}
await browser.close();
