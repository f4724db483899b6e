import { Buffer } from "node:buffer";
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { DxfWriter, point2d, point3d, Units } from "@tarikjabiri/dxf";
import { unzipSync, zipSync } from "fflate";
import { demoJob, expect, expectAccessible, saved, startJob, test } from "./fixtures";

/** A gate in inches on its centre lines, with a frame of notes round it. */
function gate(): Buffer {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Inches);
  dxf.addLayer("centre", 1, "Continuous");
  dxf.addLayer("notes", 2, "Continuous");
  const line = (a: number, b: number, c: number, d: number, layerName = "centre") =>
    dxf.addLine(point3d(a, b), point3d(c, d), { layerName });
  for (const [a, b, c, d] of [
    [0, 0, 72, 0],
    [72, 0, 72, 40],
    [72, 40, 0, 40],
    [0, 40, 0, 0],
    [36, 0, 36, 40],
  ] as const)
    line(a, b, c, d);
  line(-9, -9, 90, -9, "notes");
  dxf.addText(point3d(0, 0), 2, "gate", { layerName: "notes" });
  return Buffer.from(dxf.stringify());
}

/** A base of 50 mm tube by its outlines, with no unit. */
function base(): Buffer {
  const dxf = new DxfWriter();
  const box = (x0: number, y0: number, x1: number, y1: number) =>
    dxf.addLWPolyline(
      [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ].map(([x = 0, y = 0]) => ({ point: point2d(x, y) })),
      { flags: 1 },
    );
  box(0, 0, 1500, 50);
  box(0, 650, 1500, 700);
  box(0, 50, 50, 650);
  box(1450, 50, 1500, 650);
  return Buffer.from(dxf.stringify());
}

/** Drops a file onto the page as a hand does. */
async function drop(page: Page, name: string, content: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([n, text]) => {
      const d = new DataTransfer();
      d.items.add(new File([text ?? ""], n ?? ""));
      return d;
    },
    [name, content],
  );
  await page.dispatchEvent("body", "dragenter", { dataTransfer: data });
  await expect(page.getByText(/^Drop it here/)).toBeVisible();
  await page.dispatchEvent("body", "drop", { dataTransfer: data });
}

test("a drawing in inches becomes a job, and another one stands beside it", async ({ page, address }) => {
  await page.goto(address);
  await page.getByTestId("job-file").setInputFiles({ name: "Yard gate.dxf", mimeType: "", buffer: gate() });
  const dialog = page.getByRole("dialog", { name: "Yard gate.dxf" });
  await expect(dialog.getByTestId("drawing-made")).toContainText(/5 members, 6 joints, 74\sin × 42\sin/);
  await expect(dialog).toContainText("The file says so.");
  await expect(dialog.getByTestId("unread")).toContainText("1 × text");
  await expectAccessible(page);
  // A layer of notes makes a member of its frame: it is left out until it is ticked.
  await dialog.getByRole("checkbox", { name: /notes/ }).click();
  await expect(dialog.getByTestId("drawing-made")).toContainText("6 members");
  await dialog.getByRole("checkbox", { name: /notes/ }).click();
  await dialog.getByLabel("The drawing is in").selectOption("mm");
  await expect(dialog.getByTestId("drawing-made")).not.toContainText(/74\sin/);
  await dialog.getByLabel("The drawing is in").selectOption("in");
  await expect(dialog.getByTestId("drawing-made")).toContainText(/74\sin/);
  await dialog.getByRole("button", { name: "Start a job with it" }).click();
  await expect(page).toHaveURL(/\/frame$/);
  await expect(page.getByTestId("now")).toContainText(/5 members, 74\sin × 42\sin/);

  await page.getByTestId("drawing-file").setInputFiles({ name: "base.dxf", mimeType: "", buffer: base() });
  const second = page.getByRole("dialog", { name: "base.dxf" });
  await expect(second.getByTestId("drawing-made")).toContainText("4 members, 4 joints");
  await expect(second).toContainText("this is what makes it a frame's size");
  await expect(second.getByLabel("outlines of tubes")).toBeChecked();
  await second.getByRole("button", { name: "Put it beside what is drawn" }).click();
  await expect(page.getByTestId("now")).toContainText("9 members");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByTestId("now")).toContainText("5 members");
  await saved(page);
});

test("measured sizes and pieces to cut are dropped onto the stage that they belong to", async ({ page, address }) => {
  const job = await startJob(page, address, "Taken from an old one");
  await page.goto(`${address}${job}/frame`);
  await expect(page.getByRole("button", { name: "Read a drawing in" })).toBeVisible();
  await drop(page, "old.csv", "from;to;distance (cm)\nA;B;120,0\nB;C;80\nC;D;120.1\nD;A;79,9\nA;C;144.2\nB;D;144.3\n");
  const dialog = page.getByRole("dialog", { name: "old.csv" });
  await expect(dialog).toContainText("6 measured distances");
  await expect(dialog).toContainText("A heading says so.");
  await dialog.getByRole("button", { name: "Put them to what was measured from an object" }).click();
  await page.getByRole("button", { name: "Measured from an object" }).click();
  await expect(page.getByLabel("What was measured")).toHaveValue(/^A B 120 cm\nB C 80 cm\n/);
  await expect(page.getByText(/to spare, and all agree/)).toBeVisible();

  const other = await startJob(page, address, "With other pieces");
  await page.goto(`${address}${other}/cut`);
  await page.getByRole("button", { name: /Pieces for something else/ }).click();
  await drop(page, "shelf.csv", "length (mm);qty;ends;part\n450;4;square;shelf arm\nx;1;;\n312,5;2;45 both;brace\n");
  const pieces = page.getByRole("dialog", { name: "shelf.csv" });
  await expect(pieces).toContainText("2 kinds of pieces");
  await expect(pieces.getByTestId("unread")).toContainText("row 3: there is no length");
  await pieces.getByRole("button", { name: "Cut them from the same bars" }).click();
  await expect(page.getByLabel("Length of X2")).toHaveValue("312.5");
  await expect(page.getByRole("list", { name: "Bars and what is cut from each" }).first()).toContainText("X1-4");
  await saved(page);
});

test("the whole shop goes out as one file and comes back", async ({ page, address }) => {
  await page.goto(address);
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "The whole shop as one file" }).click(),
  ]);
  const file = await download.path();
  expect(readFileSync(file).subarray(0, 2).toString()).toBe("PK");
  await page.getByTestId("job-file").setInputFiles(file);
  await expect(page.getByTestId("opened")).toContainText(/A whole shop, .*: \d+ jobs/);
  await page.getByRole("button", { name: "Read it in" }).click();
  await expect(page.getByTestId("shop-taken")).toContainText("Taken: 0 jobs");
  await expect(page.getByTestId("opened")).toContainText("Here already, and left as they are");
  // One job of it is damaged: it is named before and after, and the others come in.
  await page.getByRole("button", { name: "Close" }).last().click();
  const files = unzipSync(new Uint8Array(readFileSync(file)));
  const damaged = Object.keys(files).find((name) => name.startsWith("jobs/")) ?? "";
  files[damaged] = new TextEncoder().encode("{");
  await page.getByTestId("job-file").setInputFiles({
    name: "damaged.zip",
    mimeType: "application/zip",
    buffer: Buffer.from(zipSync(files)),
  });
  await expect(page.getByTestId("unread")).toContainText("1 job of this file cannot be read and stays out");
  await expect(page.getByTestId("unread")).toContainText(damaged);
  await expectAccessible(page);
  await page.getByRole("button", { name: "Read it in" }).click();
  await expect(page.getByTestId("shop-taken")).toContainText("Taken: 0 jobs");
  await expect(page.getByTestId("unread")).toContainText(damaged);
});

test("every sheet is printed from the log, with its title and its job on it, and so is the frame for other programs", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Ware cart base");
  await page.goto(`${address}${job}/log`);
  const taken = async (link: string): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("link", { name: link, exact: true }).click(),
    ]);
    return download.path();
  };
  for (const [link, title] of [
    ["Sketch of the whole frame", "Sketch of the whole frame"],
    ["Cut list", "Cut list"],
    ["Buying list", "Buying list"],
    ["Marking out and drilling", "Marking out and drilling"],
    ["Bed and fixture", "Bed and fixture"],
    ["Order of work, to tick", "Order of work"],
    ["Blank check sheet", "Check sheet"],
    ["Certificate of what was measured", "Certificate of what was measured"],
  ] as const) {
    const words = execFileSync("pdftotext", [await taken(`${link} (PDF)`), "-"], { encoding: "utf8" });
    expect(words, link).toContain(title);
    expect(words, link).toContain("Ware cart base");
  }
  expect(readFileSync(await taken("Order of work (CSV)"), "utf8")).toMatch(/^step,do,face up,why,done\r\n1,/);
  expect(readFileSync(await taken("The record (CSV)"), "utf8")).toMatch(/^time,kind,what,detail,by\r\n/);
  expect(
    readFileSync(await taken("The frame as a body (glTF)"))
      .subarray(0, 4)
      .toString(),
  ).toBe("glTF");
  // Six members as triangles: 80 bytes of head, a count, 50 bytes each.
  const stl = readFileSync(await taken("The frame as a body (STL, mm)"));
  expect(stl.length).toBe(84 + 50 * stl.readUInt32LE(80));
});

test("a file that cannot be had is said where it was asked for, and can be asked for again", async ({
  page,
  address,
}) => {
  const job = await demoJob(page, address, "Ware cart base");
  await page.goto(`${address}${job}/log`);
  const takes = "The forecast of a frame of 400 joints takes minutes: it is being worked out. Ask again later.";
  await page.evaluate((message) => {
    const real = window.fetch;
    let refused = 0;
    window.fetch = (...asked: Parameters<typeof fetch>) => {
      const isSheet = String(asked[0]).includes("/sheet?name=cut");
      if (!isSheet || refused > 1) return real(...asked);
      refused++;
      return refused === 1
        ? Promise.resolve(Response.json({ message, problems: [] }, { status: 503 }))
        : Promise.reject(new TypeError("no network"));
    };
  }, takes);
  const link = page.getByRole("link", { name: "Cut list (PDF)", exact: true });
  await link.click();
  await expect(page.getByText(takes)).toBeVisible();
  await expectAccessible(page);
  await link.click();
  await expect(page.getByText(/^No answer: there is no network/)).toBeVisible();
  await expect(page.getByText(takes)).toHaveCount(0);
  const [download] = await Promise.all([page.waitForEvent("download"), link.click()]);
  expect(download.suggestedFilename()).toMatch(/\.pdf$/);
  await expect(page.getByText(/^No answer/)).toHaveCount(0);
});
