import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { request as httpsRequest } from "node:https";
import { connect } from "node:tls";
import type { Browser, Page } from "@playwright/test";
import { type Served, startServe } from "../support/serve";
import { BENCH, expect, expectAccessible, saved, test } from "./fixtures";

let served: Served;
/** A browser that trusts this very key, as a phone does on which the authority was put. */
let browser: Browser;
test.describe.configure({ mode: "serial" });
test.beforeAll(async ({ playwright }, { project }) => {
  served = await startServe();
  const { args = [], ...how } = project.use.launchOptions ?? {};
  const trusted = `--ignore-certificate-errors-spki-list=${await keyOf(served)}`;
  browser = await playwright.chromium.launch({ ...how, args: [...args, trusted] });
});
test.afterAll(async () => {
  await browser?.close();
  await served?.end();
});

/** Fingerprint of the key that the server shows. */
const keyOf = ({ address }: Served): Promise<string> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(address);
    const socket = connect({ host: hostname, port: Number(port), rejectUnauthorized: false }, () => {
      const key = socket.getPeerX509Certificate()?.publicKey.export({ type: "spki", format: "der" });
      socket.end();
      if (key) resolve(createHash("sha256").update(key).digest("base64"));
      else reject(new Error("The server shows no certificate."));
    });
    socket.once("error", reject);
  });

/** A browser of its own: another device. Errors in its console are failures, as everywhere. */
async function device(wrong: string[], bench = false): Promise<Page> {
  const context = await browser.newContext(bench ? { viewport: BENCH, hasTouch: true } : {});
  context.on("console", (m) => {
    if (m.type() === "error" && !/status of (?:401|403|422)/.test(m.text())) wrong.push(m.text());
  });
  return context.newPage();
}

/** An invitation names the address that other machines reach; this one reaches it by loopback. */
const here = (invitation: string | null): string => (invitation ?? "").replace(/^https:\/\/[^/]+/, served.address);

/** One request over TLS that trusts the shop's own authority and nothing else. */
const ask = (
  path: string,
  headers: Record<string, string> = {},
  method = "GET",
): Promise<{ status: number; body: string }> =>
  new Promise((resolve, reject) => {
    const req = httpsRequest(
      `${served.address}${path}`,
      { method, headers, ca: readFileSync(served.authority), agent: false, servername: "localhost" },
      (res) => {
        let body = "";
        res.on("data", (d) => {
          body += d;
        });
        res.on("end", () => resolve({ status: res.statusCode ?? 0, body }));
      },
    );
    req.once("error", reject);
    req.end();
  });

test("nobody gets in without an invitation: no page, no answer, under no other name, from no other site", async () => {
  for (const path of ["/api/jobs", "/api/instruments", "/api/people", "/api/test-beads"])
    expect(await ask(path), path).toMatchObject({ status: 401 });
  for (const path of ["/", "/shelf", "/people", "/jobs/00000000-0000-4000-8000-000000000000/frame"])
    expect((await ask(path)).status, path).toBe(307);
  // A page whose own name was turned to this address.
  expect((await ask("/api/health", { host: "rebound.test" })).status).toBe(421);
  expect((await ask("/sign-in", { host: "rebound.test" })).status).toBe(421);
  for (const headers of [{ origin: "https://elsewhere.test" }, { "sec-fetch-site": "cross-site" }, { origin: "null" }])
    expect((await ask("/api/jobs", headers as Record<string, string>)).status).toBe(403);
  expect(await ask("/authority.crt")).toMatchObject({
    status: 200,
    body: expect.stringContaining("BEGIN CERTIFICATE"),
  });
});

test("an owner comes in by the first invitation, lets a welder in, who works at the bench and is sent away", async () => {
  const wrong: string[] = [];
  const desk = await device(wrong);
  await desk.goto(`${served.address}/shelf`);
  await expect(desk).toHaveURL(/\/sign-in\?to=%2Fshelf$/);
  await expectAccessible(desk);
  await desk.getByLabel("Name").fill("Owner");
  await desk.getByLabel("Password").fill("not the one");
  await desk.getByRole("button", { name: "Sign in" }).click();
  await expect(desk.getByText("Name and password do not go together.")).toBeVisible();
  await expect(desk.getByLabel("Name")).toHaveValue("Owner");

  await desk.goto(`${served.address}/join#code=${served.code}`);
  await desk.getByLabel(/^Password/).fill("short");
  await desk.getByRole("button", { name: "Come in" }).click();
  await expect(desk.getByText(/At least 12 characters/)).toBeVisible();
  await desk.getByLabel(/^Password/).fill("three warm tubes");
  await expectAccessible(desk);
  await desk.getByRole("button", { name: "Come in" }).click();
  await expect(desk).toHaveURL(`${served.address}/`);

  await desk.goto(`${served.address}/people`);
  await expectAccessible(desk);
  await desk.getByLabel("Name").fill("Odo");
  await desk.getByRole("button", { name: "Make an invitation" }).click();
  const address = here(await desk.getByTestId("invitation").textContent());
  await expect(desk.getByTestId("code")).toBeVisible();
  await desk.getByRole("button", { name: "Close" }).click();

  const phone = await device(wrong, true);
  await phone.goto(address);
  await phone.getByRole("button", { name: "Come in" }).click();
  await expect(phone).toHaveURL(`${served.address}/`);
  await phone
    .getByRole("link", { name: /Ware cart base/ })
    .last()
    .click();
  await expect(phone.locator("header").getByText("Ware cart base")).toBeVisible();
  const job = new URL(phone.url()).pathname.split("/").slice(0, 3).join("/");
  await phone.goto(`${served.address}${job}/log`);
  await phone.getByLabel(/What happened/).fill("Seen at the bench");
  await phone.getByRole("button", { name: "Keep the note" }).click();
  await saved(phone);
  await expect(phone.getByText("Odo, bench").first()).toBeVisible();
  await phone.goto(`${served.address}/people`);
  await expect(phone.getByText("Signed in as Odo.")).toBeVisible();
  await expect(phone.getByText("Let somebody in")).toHaveCount(0);

  // The same address opens nothing a second time.
  const third = await device(wrong);
  await third.goto(address);
  await third.getByRole("button", { name: "Come in" }).click();
  await expect(third.getByText(/used up, withdrawn or too old/)).toBeVisible();

  await desk.reload();
  await desk.getByRole("button", { name: "Send Odo away" }).click();
  await expect(desk.getByText("Odo is signed out everywhere.")).toBeVisible();
  await phone.goto(`${served.address}${job}/log`);
  await expect(phone).toHaveURL(/\/sign-in\?to=/);
  for (const page of [desk, phone, third]) await page.context().close();
  expect(wrong).toEqual([]);
});

test("one who looks changes nothing, and is told so; what was typed stays", async () => {
  const wrong: string[] = [];
  const desk = await device(wrong);
  await desk.goto(`${served.address}/sign-in?to=https://elsewhere.test/`);
  await desk.getByLabel("Name").fill("Owner");
  await desk.getByLabel("Password").fill("three warm tubes");
  await desk.getByRole("button", { name: "Sign in" }).click();
  // Never to another site.
  await expect(desk).toHaveURL(`${served.address}/`);
  await desk.goto(`${served.address}/people`);
  await desk.getByLabel("Name").fill("Wick");
  await desk.getByLabel("May", { exact: true }).selectOption("looks");
  await desk.getByRole("button", { name: "Make an invitation" }).click();
  const address = here(await desk.getByTestId("invitation").textContent());
  const guest = await device(wrong);
  await guest.goto(address);
  await guest.getByRole("button", { name: "Come in" }).click();
  await expect(guest).toHaveURL(`${served.address}/`);
  await guest
    .getByRole("link", { name: /Ware cart base/ })
    .last()
    .click();
  await expect(guest).toHaveURL(/\/jobs\//);
  const job = new URL(guest.url()).pathname.split("/").slice(0, 3).join("/");
  await guest.goto(`${served.address}${job}/frame`);
  await guest.getByLabel("Length AB, CD").fill("1234");
  await guest.getByLabel("Length AB, CD").blur();
  await expect(guest.getByRole("status").filter({ hasText: "Not saved yet" })).toContainText(
    "You may look at the jobs of this shop, not change them.",
  );
  await expect(guest.getByLabel("Length AB, CD")).toHaveValue("1234");

  // From the desk onto the phone, under one's own name.
  await desk.goto(`${served.address}${job}/frame`);
  await desk.getByRole("button", { name: "Open on the phone" }).click();
  await expect(desk.getByTestId("code")).toBeVisible();
  await expectAccessible(desk);
  for (const page of [desk, guest]) await page.context().close();
  expect(wrong).toEqual([]);
});
