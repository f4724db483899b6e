import { SETTLED_MS } from "@/ui/parts/WhenSeen";
import { demoJob, expect, test } from "./fixtures";

/**
 * Scripts that one stage asks for before it fetches anything ahead, bytes over the wire: what works a frame out, with its tables, is 270 000
 * more, what checks data that comes from elsewhere 27 000.
 */
const MOST_BYTES = 365_000;
/** With what it fetches ahead of need once it has settled, and what its forecast brings. */
const MOST_WITH_AHEAD = 425_000;

interface Script {
  bytes: number;
  startedMs: number;
}
/** Whether it was asked for after the page may have settled: no sooner than so long after its first script. */
const isAhead = ({ startedMs }: Script, _: number, all: readonly Script[]): boolean =>
  startedMs >= Math.min(...all.map((s) => s.startedMs)) + SETTLED_MS;
const bytesOf = (scripts: readonly Script[]): number => scripts.reduce((sum, { bytes }) => sum + bytes, 0);

test("no stage carries what works a frame out: that is the worker's, and comes when it is asked", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Ware cart base");
  // The page's own resources: those of its workers are not among them.
  const scriptsOf = (): Promise<Script[]> =>
    page.evaluate(() =>
      (performance.getEntriesByType("resource") as PerformanceResourceTiming[])
        .filter((r) => /\.js(\?|$)/.test(r.name))
        .map((r) => ({ bytes: r.encodedBodySize, startedMs: r.startTime })),
    );
  for (const stage of ["", "/frame", "/cut", "/bed", "/layout", "/square", "/weld", "/check", "/finish", "/log"]) {
    await page.goto(`${address}${job}${stage}`, { waitUntil: "networkidle" });
    await expect.poll(async () => (await scriptsOf()).filter(isAhead).length).toBeGreaterThan(0);
    // Until nothing more comes.
    let before = 0;
    const isStill = async (): Promise<boolean> => {
      const now = bytesOf(await scriptsOf());
      const same = now === before;
      before = now;
      return same;
    };
    await expect.poll(isStill, { intervals: [700] }).toBe(true);
    const all = await scriptsOf();
    const atOnce = all.filter((...s) => !isAhead(...s));
    expect(atOnce.length, stage).toBeGreaterThan(5);
    expect(bytesOf(atOnce), stage).toBeGreaterThan(100_000);
    expect(bytesOf(atOnce), stage).toBeLessThan(MOST_BYTES);
    expect(bytesOf(all), `${stage}, with what is fetched ahead`).toBeLessThan(MOST_WITH_AHEAD);
  }
});
