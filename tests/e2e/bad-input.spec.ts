import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, read, saved, startJob, test } from "./fixtures";

test("what cannot be right is said at its field and kept", async ({ page, address, watched }) => {
  test.slow();
  watched.allow.push(/status of 422/);
  await page.goto(address);
  await page.getByRole("button", { name: "Start" }).click();
  await expect(page.getByText("Give the job a name.")).toBeVisible();
  const markup = '<img src=x onerror="alert(1)"> & "Söhne"';
  const job = await startJob(page, address, markup);
  await expect(page).toHaveTitle(`Job · ${markup} · Mellow Plumb`);
  await page.getByLabel("Name", { exact: true }).fill("");
  await expect(page.getByText("Give the job a name. Until then it keeps the name it had.")).toBeVisible();

  await page.goto(`${address}${job}/frame`);
  const length = page.getByLabel("Length AB, CD");
  const says = async (text: string, words: RegExp) => {
    await length.fill(text);
    await expect(page.getByText(words).first()).toBeVisible();
    await expect(length).toHaveAttribute("aria-invalid", "true");
    await expect(length).toHaveValue(text);
  };
  await says("", /Nothing typed/);
  await says("0", /must be more than zero/);
  await says("-1200", /must be more than zero/);
  await says("40 m", /over 20\sm/);
  await says("long", /Cannot read "long"/);
  await says("12 kg", /"kg" is not a unit of length/);
  await length.fill("1200");
  await page.getByLabel("Wall").fill("21");
  await expect(page.getByText(/fills the tube/).first()).toBeVisible();
  await expect(page.getByText("Could not save.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Wall")).toHaveValue("21");
  await page.getByLabel("Wall").fill("3");
  await saved(page);

  await page.goto(`${address}${job}/square`);
  const field = page.locator("form input").first();
  await expect(page.getByRole("button", { name: "Keep AB" })).toBeVisible();
  await page.keyboard.press("Tab");
  await page.getByRole("button", { name: "Keep AB" }).click();
  await expect(page.getByText("Nothing typed: give the reading")).toBeVisible();
  await field.fill("-5");
  await page.keyboard.press("Enter");
  await expect(page.getByText("a distance is more than zero")).toBeVisible();
  await field.fill("1212");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/from what it should be/)).toBeVisible();
  await page.getByRole("button", { name: "It is so: keep AB" }).click();
  // What such a reading comes to is said above the field: when that is there, nothing moves under the finger any more.
  await expect(page.getByText(/side AB is likely to fail/)).toBeVisible();
  await page.getByRole("button", { name: "Take back AB" }).click();
  await read(page, { AB: "1200.5", BC: "600.5", CD: "1200.5" });
  await expect(page.getByTestId("now")).toContainText("Read DA, AC, BD.");
  await read(page, { DA: "600.5" });
  await field.fill("1900");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "It is so: keep AC" }).click();
  await expect(page.getByTestId("now")).toContainText("Read AC again.");
  await expect(page.getByTestId("now")).toContainText("AC (1900 mm) is longer than AB and BC together");
  await saved(page);
});

test("a method that nothing here takes is refused, and is no error of the program", async ({ request, address }) => {
  for (const path of ["/", "/api/jobs", "/jobs/none/square"])
    expect((await request.fetch(`${address}${path}`, { method: "TRACE" })).status(), path).toBe(405);
  expect((await request.fetch(`${address}/api/jobs`, { method: "DELETE" })).status()).toBe(405);
});

test("what is no job file is refused in words, never by a 5xx", async ({ page, address, watched }) => {
  watched.allow.push(/status of (422|413|409)/);
  await page.goto(address);
  const folder = mkdtempSync(path.join(tmpdir(), "plumb-files-"));
  const send = async (name: string, text: string | Buffer, words: RegExp) => {
    const file = path.join(folder, name);
    writeFileSync(file, text);
    await page.getByTestId("job-file").setInputFiles(file);
    await expect(page.getByText(words).first()).toBeVisible();
    await expect(page.getByRole("dialog", { name })).toContainText("Nothing of it was taken.");
    await page.getByRole("button", { name: "Close" }).last().click();
    await expect(page.getByRole("dialog")).toBeHidden();
  };
  const { jobs } = await (await page.request.get(`${address}/api/jobs`)).json();
  const good = await (await page.request.get(`${address}/api/jobs/${jobs[0].id}/file`)).text();
  await send("later.json", good.replace('"formatVersion": 2', '"formatVersion": 9'), /written by a later version/);
  await send("short.json", good.slice(0, good.length / 2), /cut short|not JSON/);
  await send("empty.json", "", /file is empty/);
  await send("huge.json", `{${" ".repeat(20 * 1024 * 1024)}`, /job file has 21 MB; up to 8 MB is read/);
  await send("vast.dxf", `0\nSECTION\n2\nENTITIES\n${"0\nLINE\n".repeat(7_000_000)}`, /drawing has 49 MB/);
  await send("drawing.dxf", "%PDF-1.7\n", /This is a PDF/);
  await send("notes.txt", "hello", /columns of this table are not known/);
  await send("words.svg", "<svg><text>only words</text></svg>", /no lines in this drawing, only 1 × text/);
  await send("other.json", '{"hello": 1}', /not a job file/);
});

test("the routes take no nonsense and never answer 5xx", async ({ request, address }) => {
  const { jobs } = await (await request.get(`${address}/api/jobs`)).json();
  const job = `${address}/api/jobs/${jobs[0].id}`;
  const json = { "content-type": "application/json" };
  const answers: [string, Promise<{ status: () => number }>, number[]][] = [
    [
      "huge upload",
      request.post(`${address}/api/jobs/file?origin=x`, { data: Buffer.alloc(50 * 1024 * 1024, 32) }),
      [413],
    ],
    ["no origin", request.post(`${address}/api/jobs/file`, { data: "{}" }), [422]],
    ["no JSON", request.put(`${job}/plan`, { headers: json, data: Buffer.from("{") }), [400]],
    ["no type", request.post(`${job}/entries`, { headers: { "content-type": "text/plain" }, data: "x" }), [415]],
    ["nothing", request.post(`${job}/entries`, { headers: json, data: "null" }), [422]],
    [
      "deep",
      request.post(`${job}/entries`, { headers: json, data: Buffer.from("[".repeat(20_000) + "]".repeat(20_000)) }),
      [400, 422],
    ],
    ["bad id", request.get(`${address}/api/jobs/%00%ff`), [400, 404]],
    ["quote", request.get(`${address}/api/jobs/'%20OR%201=1`), [404]],
    ["bad numbers", request.get(`${job}/news?since=-1&version=abc`), [400]],
    ["large numbers", request.get(`${job}/news?since=99999999999&version=1`), [400]],
    ["no numbers", request.get(`${job}/news`), [400]],
    ["wrong verb", request.delete(job), [405]],
    [
      "foreign page",
      request.post(`${address}/api/jobs`, {
        headers: { ...json, origin: "http://elsewhere.test" },
        data: { name: "x", units: "mm", origin: "x" },
      }),
      [403],
    ],
    [
      "long name",
      request.post(`${address}/api/jobs`, { data: { name: "x".repeat(500), units: "mm", origin: "x" } }),
      [422],
    ],
    [
      "lone surrogate",
      request.post(`${address}/api/jobs`, {
        headers: json,
        data: Buffer.from('{"name":"\\ud800","units":"mm","origin":"x"}'),
      }),
      [400],
    ],
    [
      "zero byte",
      request.post(`${address}/api/jobs`, {
        headers: json,
        data: Buffer.from('{"name":"a\\u0000b","units":"mm","origin":"x"}'),
      }),
      [200, 422],
    ],
    [
      "prototype",
      request.post(`${address}/api/jobs`, {
        headers: json,
        data: Buffer.from('{"__proto__":{"a":1},"name":"p","units":"mm","origin":"x"}'),
      }),
      [200, 422],
    ],
    ["no bead", request.post(`${address}/api/test-beads`, { headers: json, data: "[]" }), [422]],
    [
      "a bead of nonsense",
      request.post(`${address}/api/test-beads`, {
        data: { id: "x", at: "now", origin: "", volts: 1e308, amps: -1, wallMm: "3", material: "brass", note: 7 },
      }),
      [422],
    ],
    ["test beads, wrong verb", request.delete(`${address}/api/test-beads`), [405]],
  ];
  for (const [what, answer, allowed] of answers) expect(allowed, what).toContain((await answer).status());
});
