import { demoJob, expect, test } from "./fixtures";

/**
 * Scripts of one stage over the wire with what is fetched ahead while it is idle, bytes: what works a frame out, with its tables, is
 * 270 000 more, what checks data that comes from elsewhere 27 000.
 */
const MOST_BYTES = 365_000;

test("no stage carries what works a frame out: that is the worker's, and comes when it is asked", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Ware cart base");
  for (const stage of ["", "/frame", "/cut", "/bed", "/layout", "/square", "/weld", "/check", "/finish", "/log"]) {
    await page.goto(`${address}${job}${stage}`, { waitUntil: "networkidle" });
    // The page's own resources: those of its workers are not among them.
    const scripts = await page.evaluate(() =>
      (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
        .filter((r) => /\.js(\?|$)/.test(r.name))
        .map((r) => r.encodedBodySize),
    );
    expect(scripts.length, stage).toBeGreaterThan(5);
    const all = scripts.reduce((sum, n) => sum + n, 0);
    expect(all, stage).toBeGreaterThan(100_000);
    expect(all, stage).toBeLessThan(MOST_BYTES);
  }
});
