import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";

export const BENCH = { width: 390, height: 844 };

/** Messages that a page may print: none of ours. A test that makes the server refuse something lists it. */
interface Watched {
  /** Console errors that this test brings about on purpose. */
  allow: RegExp[];
}

/** Every page is watched: no console error, no page error, no request leaves loopback, no answer is 5xx. */
export const test = base.extend<{ watched: Watched; address: string }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the parameter's shape
  address: async ({}, use) => {
    await use(process.env.APP_ADDRESS ?? "");
  },
  watched: [
    async ({ context }, use) => {
      const watched: Watched = { allow: [] };
      const wrong: string[] = [];
      // What the test browser says of itself where no service worker is wanted.
      const own = /Service Worker registration blocked by Playwright/;
      context.on("console", (m) => {
        if ((m.type() === "error" || m.type() === "warning") && !own.test(m.text()))
          wrong.push(`console ${m.type()}: ${m.text()} ${m.location().url}`);
      });
      context.on("weberror", (e) => wrong.push(`page error: ${e.error().message}`));
      context.on("request", (r) => {
        const { hostname, protocol } = new URL(r.url());
        if (!["data:", "blob:"].includes(protocol) && hostname !== "127.0.0.1")
          wrong.push(`request left loopback: ${r.url()}`);
      });
      context.on("response", (r) => {
        if (r.status() >= 500) wrong.push(`${r.status()} ${r.url()}`);
      });
      await use(watched);
      expect(wrong.filter((w) => !watched.allow.some((a) => a.test(w)))).toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

/** What axe looks for; by the colours of the other theme, only what colours decide can differ. */
const STANDARDS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];
const OF_COLOURS = ["color-contrast", "link-in-text-block"];

/** No accessibility fault that axe can find, in both themes. */
export async function expectAccessible(page: Page): Promise<void> {
  for (const colorScheme of ["light", "dark"] as const) {
    await page.emulateMedia({ colorScheme });
    // One page without frames: no need of axe's way through a page of its own.
    const axe = new AxeBuilder({ page }).setLegacyMode();
    const { violations } = await (colorScheme === "light"
      ? axe.withTags(STANDARDS)
      : axe.withRules(OF_COLOURS)
    ).analyze();
    expect(
      violations.map(
        (v) =>
          `${colorScheme}: ${v.id} (${v.help}): ${v.nodes
            .map((n) => n.target.join(" "))
            .slice(0, 3)
            .join(" | ")}`,
      ),
    ).toEqual([]);
  }
  await page.emulateMedia({ colorScheme: "light" });
}

/** Waits until everything is stored. */
export const saved = async (page: Page): Promise<void> => {
  await expect(page.locator("[data-save=saved]")).toBeVisible();
};

/** Starts a job by the screen and waits until its first stage is live. @returns the job's path. */
export async function startJob(page: Page, address: string, name: string, units = "mm"): Promise<string> {
  await page.goto(address);
  await page.getByLabel("Name").fill(name);
  await page.getByRole("radio", { name: units, exact: true }).click();
  await page.getByRole("button", { name: "Start" }).click();
  await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}$/);
  await expect(page.locator("header").getByText(name)).toBeVisible();
  return new URL(page.url()).pathname;
}

/** Keeps readings one after the other, as they are asked for. */
export async function read(page: Page, values: Record<string, string>): Promise<void> {
  for (const [name, text] of Object.entries(values)) {
    const what = name.startsWith("z") ? `height ${name.slice(1)}` : name;
    const keep = page.getByRole("button", { name: `Keep ${what}`, exact: true });
    await expect(keep).toBeVisible();
    await page.locator("form input").first().fill(text);
    await page.keyboard.press("Enter");
    await expect(
      page.getByRole("list", { name: "Readings of this round" }).getByRole("button", { name: new RegExp(`^${what}`) }),
    ).toContainText(text);
  }
}

/** Path of a demo job. */
export async function demoJob(page: Page, address: string, name: string): Promise<string> {
  const list = await page.request.get(`${address}/api/jobs?text=${encodeURIComponent(name)}`);
  const { jobs } = (await list.json()) as { jobs: { id: string; name: string }[] };
  const id = jobs.find((j) => j.name === name)?.id;
  if (!id) throw new Error(`No demo job ${name}`);
  return `/jobs/${id}`;
}
