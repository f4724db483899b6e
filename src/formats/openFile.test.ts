import { readFileSync } from "node:fs";
import { DxfWriter, point2d, point3d, Units } from "@tarikjabiri/dxf";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { LAYERS } from "@/core/drawing";
import { fromLines, type LineWork, STARTERS, usualWish } from "@/core/frame";
import { builtOf, fullScaleOf } from "@/core/job";
import { demoJobs } from "../../script/lib/demo-jobs";
import { squareTube, started } from "../../tests/support/drawnFrames";
import { drawnPlan } from "../../tests/support/plans";
import { readDxf } from "./drawingDxf";
import { readSvg } from "./drawingSvg";
import { writeJobFile } from "./jobFile";
import { layoutDxf } from "./layoutDxf";
import { layoutSvg } from "./layoutSvg";
import { openFile } from "./openFile";
import { readArchive, type ShopArchive, writeArchive } from "./shopArchive";
import { readTable } from "./tableCsv";

const got = <T>(r: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!r.ok) throw new Error(r.message);
  return r.value;
};
const said = (text: string | Uint8Array): string => {
  const r = openFile(typeof text === "string" ? strToU8(text) : text);
  return r.ok ? `taken: ${r.value.kind}` : r.message;
};
/** Ends of lines to a micrometre, each line the same way round. */
const places = ({ lines }: Pick<LineWork, "lines">): string[] =>
  lines
    .map(({ from, to }) =>
      [from, to]
        .map((p) => p.map((v) => (+v.toFixed(6) + 0).toString()).join(","))
        .sort()
        .join(" "),
    )
    .sort();

/** Entities as R12 writes them. */
const r12 = (...pairs: (string | number)[]): string =>
  `${["0", "SECTION", "2", "ENTITIES", ...pairs, "0", "ENDSEC", "0", "EOF"].join("\n")}\n`;
const line = (layer: string, x0: number, y0: number, x1: number, y1: number) =>
  ["0", "LINE", "8", layer, "10", x0, "20", y0, "11", x1, "21", y1] as const;

describe("DXF", () => {
  it("reads what a library that did not read it wrote, to 1e-6", () => {
    const num = fc.integer({ min: -3_000_000, max: 3_000_000 }).map((v) => v / 1000);
    fc.assert(
      fc.property(fc.array(fc.tuple(num, num, num, num), { minLength: 1, maxLength: 30 }), (lines) => {
        const dxf = new DxfWriter();
        dxf.setUnits(Units.Inches);
        dxf.addLayer("rails", 7, "Continuous");
        for (const [a, b, c, d] of lines) dxf.addLine(point3d(a, b), point3d(c, d), { layerName: "rails" });
        const read = got(readDxf(dxf.stringify()));
        expect(read.unit).toBe("in");
        expect(new Set(read.lines.map((l) => l.layer))).toEqual(new Set(["rails"]));
        expect(places(read)).toEqual(
          places({ lines: lines.map(([a, b, c, d]) => ({ layer: "", from: [a, b, 0], to: [c, d, 0] })) }),
        );
      }),
      { numRuns: 60 },
    );
  });
  it("reads polylines, closed ones, and arcs as chords whose ends lie on the arc", () => {
    const dxf = new DxfWriter();
    dxf.addLWPolyline([{ point: point2d(0, 0), bulge: 1 }, { point: point2d(0, 200) }, { point: point2d(-300, 200) }], {
      flags: 1,
    });
    const read = got(readDxf(dxf.stringify()));
    // A bulge of 1 is half a turn, counter-clockwise from the first corner to the next: to the right of the way up.
    const arc = read.lines.filter((l) => Math.max(l.from[0], l.to[0]) > 1e-9);
    expect(arc.length).toBe(8);
    for (const p of arc.flatMap((l) => [l.from, l.to])) expect(Math.hypot(p[0], p[1] - 100)).toBeCloseTo(100, 6);
    expect(read.lines.length).toBe(8 + 2);
    expect(read.unread.join()).toContain("chords");
  });
  it("reads R12 text of its own, blocks that are turned and scaled, and says what it does not take", () => {
    const text = [
      "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nBAR\n70\n0\n10\n0\n20\n0\n3\nBAR",
      line("0", 0, 0, 100, 0).join("\n"),
      "0\nENDBLK\n0\nENDSEC",
      r12(
        ...line("A", 0, 0, 1000, 0),
        ...["0", "INSERT", "8", "B", "2", "BAR", "10", 50, "20", 60, "41", 3, "42", 1, "50", 90],
        ...["0", "INSERT", "8", "B", "2", "GONE", "10", 0, "20", 0],
        ...["0", "SPLINE", "8", "A", "70", 0, "71", 3],
        ...["0", "HELIX", "8", "A"],
        ...["0", "TEXT", "8", "A", "10", 0, "20", 0, "40", 5, "1", "note"],
        ...["0", "TEXT", "8", "A", "10", 0, "20", 0, "40", 5, "1", "note"],
      ),
    ].join("\n");
    const { lines, unit, unread } = got(readDxf(text));
    expect(unit).toBeNull();
    expect(places({ lines })).toEqual(
      places({
        lines: [
          { layer: "", from: [0, 0, 0], to: [1000, 0, 0] },
          { layer: "", from: [50, 60, 0], to: [50, 360, 0] },
        ],
      }),
    );
    // What a block draws on layer 0 is on the layer of where it is put in.
    expect(lines.map((l) => l.layer).sort()).toEqual(["A", "B"]);
    const all = unread.join("; ");
    for (const what of ["1 × spline", "1 × helix", "2 × text", "block that is not in the file"])
      expect(all).toContain(what);
  });
  it("reads files of the oldest version and of the current one, written by a third library", () => {
    for (const [file, unit] of [
      ["ladder-r12.dxf", null],
      ["ladder-2018.dxf", "mm"],
    ] as const) {
      const opened = got(openFile(readFileSync(`tests/fixtures/drawings/${file}`)));
      if (opened.kind !== "drawing") throw new Error(opened.kind);
      expect(opened.work.unit).toBe(unit);
      const wish = { unit: "mm", layers: ["rails"], means: "centre" } as const;
      const { frame, structure } = got(fromLines(opened.work, wish, squareTube(), "mm"));
      expect(frame.members.map((m) => m.id)).toEqual(["AB", "BC", "CD", "DA", "M5", "M6"]);
      expect(structure.joints).toHaveLength(8);
      expect([structure.quad?.lengthMm, structure.quad?.widthMm]).toEqual([1540, 740]);
      // A block that is put in upside down lies where it is mirrored to.
      const brace = opened.work.lines.find((l) => l.layer === "brace");
      expect([brace?.from, brace?.to]).toEqual([
        [750, 700, 0],
        [750, 0, 0],
      ]);
    }
  });
  it("ends where a block holds itself", () => {
    const own = ["0", "INSERT", "8", "0", "2", "B", "10", 0, "20", 0].join("\n");
    const text = `0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nB\n70\n0\n10\n0\n20\n0\n3\nB\n${own}\n${line("0", 0, 0, 9, 0).join("\n")}\n0\nENDBLK\n0\nENDSEC\n${r12(...["0", "INSERT", "8", "0", "2", "B", "10", 0, "20", 0])}`;
    expect(got(readDxf(text)).unread.join()).toContain("holds itself");
  });
});

describe("SVG", () => {
  it("reads lines, shapes, paths and what moves them, upright, in the unit that it says", () => {
    const svg = `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 2000 1000">
      <defs><line x1="0" y1="0" x2="9" y2="9"/></defs>
      <g id="frame" transform="translate(100 50) scale(2)"><line x1="0" y1="0" x2="100" y2="0"/>
        <path d="m10 10 h50 v-20 z"/><path d="M0 0 C 1 1 2 2 40 0"/></g>
      <polygon points="0,0 10,0 10,10"/><rect x="5" y="5" width="20" height="10"/>
      <circle cx="1" cy="1" r="1"/><text>note</text></svg>`;
    const { lines, unit, unread } = got(readSvg(svg));
    expect(unit).toBe("mm");
    expect(lines).toHaveLength(1 + 3 + 1 + 3 + 4);
    const first = lines[0];
    expect([first?.from, first?.to]).toEqual([
      [10, -5, 0],
      [30, -5, 0],
    ]);
    expect(first?.layer).toBe("frame");
    for (const what of ["1 × circle", "1 × text", "1 × curve"]) expect(unread.join()).toContain(what);
  });
  it("does not follow what an entity would blow up to", () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><svg><text>&b;</text><line x1="0" x2="9"/></svg>`;
    const r = readSvg(bomb);
    if (r.ok) expect(r.value.lines).toHaveLength(1);
    else expect(r.message).toMatch(/cannot be read/);
  });
});

describe("a drawing of ours", () => {
  it("comes back as the members that it was made from, by DXF and by SVG, whatever the frame", () => {
    for (const { name } of STARTERS) {
      const plan = drawnPlan(started(name));
      const { structure } = builtOf(plan);
      const made = fullScaleOf(plan, null, { size: "drawing", layers: LAYERS });
      if (!structure || !made) throw new Error(name);
      // Members that are seen along their line are drawn by nothing but their outline.
      const flat = made.drawing.items.filter((i) => i.layer === "centre").length;
      if (flat === 0) continue;
      for (const text of [layoutDxf(made.drawing), layoutSvg(made.drawing, name)]) {
        const work = got(openFile(strToU8(text)));
        if (work.kind !== "drawing") throw new Error(work.kind);
        expect(work.work.unit).toBe("mm");
        const wish = usualWish(work.work, "mm");
        expect(wish.layers).toEqual(["centre"]);
        const section = {
          id: "S1",
          ...plan.frame.sizes.section,
          shape: "tube" as const,
          material: plan.frame.sizes.material,
          width: plan.frame.sizes.section.face,
          height: plan.frame.sizes.section.depth,
        };
        const { face: _f, depth: _d, ...tube } = section;
        const back = fromLines(work.work, wish, tube, "mm");
        expect(back.ok, `${name}: ${back.ok ? "" : back.message}`).toBe(true);
        // Seen from above some lie over each other; never are there more than were drawn.
        if (back.ok) expect(back.value.frame.members.length).toBeLessThanOrEqual(2 * flat);
        if (name === "rectangle" && back.ok) {
          expect(back.value.structure.quad?.lengthMm).toBeCloseTo(structure.quad?.lengthMm ?? 0, 2);
          expect(back.value.structure.quad?.widthMm).toBeCloseTo(structure.quad?.widthMm ?? 0, 2);
        }
      }
    }
  });
});

describe("tables", () => {
  const rows = (text: string) => got(readTable(text));
  it("holds distances, points or pieces, with headings or without, in the unit of its heading", () => {
    expect(rows("from;to;distance (mm)\nP1;P2;1203,5\n2;3;804\n")).toMatchObject({
      unit: "mm",
      rows: {
        kind: "measured",
        of: [
          { kind: "distance", names: ["P1", "P2"], values: [1203.5] },
          { kind: "distance", names: ["P2", "P3"], values: [804] },
        ],
      },
    });
    expect(rows("A,0,20\nB,1200.5,21\n")).toMatchObject({
      unit: null,
      rows: { of: [{ kind: "point", names: ["A"], values: [0, 20] }, { names: ["B"] }] },
    });
    expect(rows('"Length, in",Qty,Ends,Part\n41.93,4,"45/45, opposed",rail\n')).toMatchObject({
      unit: "in",
      rows: { kind: "pieces", of: [{ length: 41.93, quantity: 4, ends: "45/45, opposed", name: "rail" }] },
    });
  });
  it("names the rows that it leaves out, and refuses what it does not know", () => {
    const { unread } = rows("length,quantity\n100,2\nx,1\n100,1.5\n");
    expect(unread).toEqual(["row 3: there is no length", "row 4: how many is a whole number from 1 to 500"]);
    expect(readTable("colour,weight\nred,5\n")).toMatchObject({
      ok: false,
      message: expect.stringContaining("columns"),
    });
    expect(readTable("").ok).toBe(false);
    expect(readTable('a,"b\n1,2').ok).toBe(false);
  });
});

const shop = (): ShopArchive => {
  const jobs = demoJobs().map(({ job }, i) => ({ job, away: i === 1 }));
  const instruments = new Map(jobs.flatMap(({ job }) => job.instruments.map((i) => [i.id, i])));
  return {
    shop: { id: "0197a0b0-0000-7000-8000-000000000001", name: "Fernhollow Clayworks" },
    jobs,
    instruments: [...instruments.values()],
    lessons: [],
    testBeads: [],
  };
};

describe("the archive of a shop", () => {
  it("comes back whole, and is the same to the byte when it is written again", () => {
    const bytes = writeArchive(shop());
    const read = got(readArchive(bytes));
    expect(read.jobs.map(({ job, away }) => [writeJobFile(job), away])).toEqual(
      shop().jobs.map(({ job, away }) => [writeJobFile(job), away]),
    );
    expect(writeArchive(read)).toEqual(bytes);
    expect(said(bytes)).toBe("taken: shop");
  });
  it("names a job that cannot be read, and keeps back no other; with none it is refused", () => {
    const files = unzipSync(writeArchive(shop()));
    const [spoilt, gone, swapped, sound] = shop().jobs.map(({ job }) => `jobs/${job.id}.json`) as [
      string,
      string,
      string,
      string,
    ];
    const damaged = {
      ...files,
      [spoilt]: strToU8(strFromU8(files[spoilt] ?? new Uint8Array()).replace('"units"', '"unit"')),
      [swapped]: files[sound] ?? new Uint8Array(),
    };
    delete damaged[gone];
    const read = got(readArchive(zipSync(damaged)));
    expect(read.jobs.map(({ job }) => `jobs/${job.id}.json`)).toEqual([sound]);
    expect(read.unread.map((why) => why.slice(0, spoilt.length))).toEqual([spoilt, gone, swapped]);
    expect(read.unread.join(" ")).toMatch(/unit.* is missing in the archive.* holds another job/);
    expect(got(readArchive(zipSync(files))).unread).toEqual([]);
    const none = Object.fromEntries(Object.entries(files).filter(([name]) => !name.startsWith("jobs/")));
    expect(said(zipSync(none))).toMatch(/Not one of its jobs can be read.*missing/);
  });
  it("is refused whole where it is broken, of a later version, or would unpack to too much", () => {
    const bytes = writeArchive(shop());
    expect(said(bytes.slice(0, bytes.length / 2))).toMatch(/broken/);
    expect(said(zipSync({ "notes.txt": strToU8("hello") }))).toMatch(/no archive of a shop/);
    const head = { format: "mellow-plumb-shop", formatVersion: 9, shop: {}, jobs: [] };
    expect(said(zipSync({ "shop.json": strToU8(JSON.stringify(head)) }))).toMatch(/later version \(9/);
    expect(said(zipSync({ "shop.json": strToU8("{") }))).toMatch(/shop.json/);
    // A size that no shop has, in the zip's own list: it is read no further; one that lies is found out.
    const sized = (size: number): Uint8Array => {
      const zip = zipSync({ "shop.json": new Uint8Array(200_000) });
      const at = zip.findIndex(
        (_, i) => zip[i] === 0x50 && zip[i + 1] === 0x4b && zip[i + 2] === 1 && zip[i + 3] === 2,
      );
      new DataView(zip.buffer, zip.byteOffset).setUint32(at + 24, size, true);
      return zip;
    };
    expect(said(sized(0xf000_0000))).toMatch(/more than any shop/);
    expect(said(sized(10))).toMatch(/broken|shop.json/);
  });
});

describe("a file that is opened", () => {
  it("is known by what is in it, whatever its name says", () => {
    const job = demoJobs()[0]?.job;
    if (!job) throw new Error("no job");
    expect(said(writeJobFile(job))).toBe("taken: job");
    expect(said(`999\na remark\n${r12(...line("0", 0, 0, 900, 0))}`)).toBe("taken: drawing");
    expect(said("<svg><line x1='0' x2='500'/></svg>")).toBe("taken: drawing");
    expect(said("A,B,500\nB,C,600")).toBe("taken: table");
  });
  it("says in words what it cannot take", () => {
    const cases: [string | Uint8Array, RegExp][] = [
      ["", /empty/],
      ["%PDF-1.7\n%âãÏÓ", /PDF/],
      ["AC1032\u0000\u0000", /closed format/],
      [new Uint8Array([80, 0, 1, 2, 3]), /not text/],
      ["{", /job|JSON/i],
      ['{"format":"other"}', /not a job file/],
      [r12("0", "TEXT", "8", "0", "10", 0, "20", 0, "40", 5, "1", "only words"), /no lines.*1 × text/],
      ["<svg></svg>", /no lines/],
      ["<?xml version='1.0'?><html/>", /no svg|no drawing/],
      ["hello", /columns/],
      ["\u0000".repeat(10), /not text/],
      [`${r12(...line("0", 0, 0, 9, 0)).slice(0, 60)}`, /cannot be read|no lines/],
      [new Uint8Array(30 * 1024 * 1024).fill(65), /MB/],
    ];
    for (const [text, words] of cases) expect(said(text), String(text).slice(0, 40)).toMatch(words);
  });
  it("never throws, whatever is in it", () => {
    const starts = [
      "",
      "0\nSECTION\n2\nENTITIES\n",
      "<svg>",
      "{",
      "PK\u0003\u0004",
      "from,to,distance\n",
      "AC10",
      "%PDF",
    ];
    fc.assert(
      fc.property(
        fc.constantFrom(...starts),
        fc.uint8Array({ maxLength: 400 }),
        fc.string({ maxLength: 200 }),
        (a, b, c) => {
          expect(typeof said(`${a}${c}`)).toBe("string");
          const bytes = new Uint8Array([...strToU8(a), ...b]);
          expect(typeof said(bytes)).toBe("string");
        },
      ),
      { numRuns: 400 },
    );
  });
});
