import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir, userInfo } from "node:os";
import path from "node:path";
import { createConnection, type RowDataPacket } from "mysql2/promise";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { DATABASE, reset, start } from "../../script/lib/mariadb.mjs";

const root = path.join(import.meta.dirname, "../..");
let folder = "";
const at = (name: string): string => path.join(folder, name);

/** Runs one of the scripts as a person does. */
function script(name: string, args: string[], env: Record<string, string> = {}) {
  const { status, stdout, stderr } = spawnSync(path.join(root, "script", name), args, {
    cwd: folder,
    env: { ...process.env, PLUMB_DATA: at("db"), ...env },
    encoding: "utf8",
  });
  return { status, words: stdout + stderr };
}

/** Every row of every table, in order, as text. */
async function everything(data: string): Promise<Record<string, unknown[]>> {
  const { socket } = await start(data);
  const db = await createConnection({
    socketPath: socket,
    user: userInfo().username,
    database: DATABASE,
    dateStrings: true,
  });
  const [tables] = await db.query<RowDataPacket[]>("SHOW TABLES");
  const found: Record<string, unknown[]> = {};
  for (const row of tables) {
    const table = String(Object.values(row)[0]);
    // The backup itself notes when it was made.
    if (table === "upkeep") continue;
    const [rows] = await db.query<RowDataPacket[]>(`SELECT * FROM \`${table}\` ORDER BY 1, 2`);
    found[table] = rows;
  }
  const [triggers] = await db.query<RowDataPacket[]>("SHOW TRIGGERS");
  found.triggers = triggers.map((t) => [t.Trigger, t.Statement]).sort();
  await db.end();
  return found;
}

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "plumb-backup-"));
  const args = ["--conditions=react-server", "--import", "tsx", "script/lib/prepare.ts", "--demo"];
  const made = spawnSync(process.execPath, args, { cwd: root, env: { ...process.env, PLUMB_DATA: at("db") } });
  expect(made.status).toBe(0);
});
afterAll(async () => {
  for (const name of readdirSync(folder)) if (name.startsWith("db")) await reset(at(name));
  rmSync(folder, { recursive: true, force: true });
});

describe("a backup", () => {
  it("is one file, taken while the database runs, that gives everything back beside what is there", async () => {
    const before = await everything(at("db"));
    const made = script("backup", ["shop.backup"]);
    expect(made).toMatchObject({ status: 0, words: expect.stringMatching(/read through to its end/) });
    expect(script("backup", ["shop.backup"])).toMatchObject({
      status: 1,
      words: expect.stringMatching(/there already/),
    });
    expect(script("restore", ["shop.backup"])).toMatchObject({
      status: 1,
      words: expect.stringMatching(/holds jobs already/),
    });
    expect(script("restore", ["shop.backup", "--beside"]).status).toBe(0);
    const beside = readdirSync(folder).find((n) => n.startsWith("db-restored-")) ?? "";
    const after = await everything(at(beside));
    expect(Object.keys(before).length).toBeGreaterThan(12);
    expect(before.entry?.length).toBeGreaterThan(20);
    expect(after).toEqual(before);
  });
  it("that is sealed opens with its passphrase alone, and not when a byte of it was changed or it was cut", async () => {
    const sealed = { PLUMB_PASSPHRASE: "kiln shelf stand" };
    expect(script("backup", ["sealed.backup", "--encrypt"], sealed).status).toBe(0);
    const bytes = readFileSync(at("sealed.backup"));
    expect(bytes.includes("Ware cart base")).toBe(false);
    const into = (name: string, file: string, env = sealed) =>
      script("restore", [file], { ...env, PLUMB_DATA: at(name) });
    expect(into("db2", "sealed.backup", { PLUMB_PASSPHRASE: "another one here" })).toMatchObject({
      status: 1,
      words: expect.stringMatching(/not its passphrase/),
    });
    const changed = Buffer.from(bytes);
    changed[Math.floor(changed.length / 2)] = (changed[Math.floor(changed.length / 2)] ?? 0) ^ 1;
    writeFileSync(at("changed.backup"), changed);
    writeFileSync(at("cut.backup"), bytes.subarray(0, bytes.length - 100));
    writeFileSync(at("other.backup"), "hello");
    for (const file of ["changed.backup", "cut.backup", "other.backup"])
      expect(into("db3", file), file).toMatchObject({ status: 1, words: expect.stringMatching(/✗/) });
    expect(into("db4", "sealed.backup").status).toBe(0);
    expect((await everything(at("db4"))).job).toEqual((await everything(at("db"))).job);
  });
});
