import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { type Connection, createConnection, type RowDataPacket } from "mysql2/promise";

const LOCK = "mellow_plumb_migrate";
const LOCK_WAIT_S = 60;
const APP_USER = "plumb_app";

/** What the application may do, table by table. Append-only tables can be read and added to, nothing else. */
const GRANTS: Record<string, string> = {
  job: "SELECT, INSERT, UPDATE",
  job_plan: "SELECT, INSERT",
  entry: "SELECT, INSERT",
  instrument: "SELECT, INSERT",
  prediction: "SELECT, INSERT, DELETE",
  test_bead: "SELECT, INSERT",
  lesson: "SELECT, INSERT",
  shop: "SELECT",
  instrument_away: "SELECT, INSERT, DELETE",
  person: "SELECT, INSERT, UPDATE",
  invitation: "SELECT, INSERT, UPDATE",
  device: "SELECT, INSERT, UPDATE",
  failed_try: "SELECT, INSERT, DELETE",
  audit: "SELECT, INSERT",
  upkeep: "SELECT, INSERT, UPDATE",
  presence: "SELECT, INSERT, UPDATE, DELETE",
};

/** One numbered file, cut into statements. */
interface Migration {
  number: number;
  name: string;
  statements: string[];
  checksum: string;
}

/** @param folder with files `001-name.sql`; a statement ends with a semicolon at the end of a line. @throws on a gap. */
export function readMigrations(folder: string): Migration[] {
  const files = readdirSync(folder)
    .filter((f) => f.endsWith(".sql"))
    .sort();
  return files.map((file, i) => {
    const found = /^(\d{3})-([a-z0-9-]+)\.sql$/.exec(file);
    if (!found || Number(found[1]) !== i + 1)
      throw new Error(`Migration ${file}: expected ${String(i + 1).padStart(3, "0")}-name.sql`);
    const text = readFileSync(path.join(folder, file), "utf8");
    const statements = text
      .replace(/^\s*--.*$/gm, "")
      .split(/;\s*(?:\n|$)/)
      .map((s) => s.trim())
      .filter(Boolean);
    return {
      number: i + 1,
      name: found[2] ?? "",
      statements,
      checksum: createHash("sha256").update(text).digest("hex"),
    };
  });
}

async function applyOne(db: Connection, migration: Migration): Promise<boolean> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT checksum, statements_done, finished_at FROM schema_migration WHERE number = ?",
    [migration.number],
  );
  const row = rows[0];
  if (row?.finished_at) {
    if (row.checksum !== migration.checksum)
      throw new Error(`Migration ${migration.number} was changed after it was applied. Add a new one instead.`);
    return false;
  }
  if (!row)
    await db.execute("INSERT INTO schema_migration (number, name, checksum, statements_done) VALUES (?, ?, ?, 0)", [
      migration.number,
      migration.name,
      migration.checksum,
    ]);
  // Each DDL statement is atomic in MariaDB but commits by itself, so progress is kept statement by statement.
  for (let i = Number(row?.statements_done ?? 0); i < migration.statements.length; i++) {
    await db.query(migration.statements[i] as string);
    await db.execute("UPDATE schema_migration SET statements_done = ?, checksum = ? WHERE number = ?", [
      i + 1,
      migration.checksum,
      migration.number,
    ]);
  }
  await db.execute("UPDATE schema_migration SET finished_at = UTC_TIMESTAMP(3) WHERE number = ?", [migration.number]);
  return true;
}

/** Where to migrate, and the application's login. */
interface MigrateOptions {
  socketPath: string;
  adminUser: string;
  database: string;
  appPassword: string;
  folder: string;
}

/**
 * Brings a database up to date under a lock, then gives the application user its rights and no more.
 * Safe to run at any time, by several at once, and again after it was cut off.
 * @returns the names of the migrations that were applied.
 */
export async function migrate(options: MigrateOptions): Promise<string[]> {
  const { database } = options;
  if (!/^[a-z][a-z0-9_]{0,40}$/.test(database)) throw new Error(`Not a database name: ${database}`);
  const db = await createConnection({
    socketPath: options.socketPath,
    user: options.adminUser,
    charset: "UTF8MB4_UNICODE_CI",
  });
  try {
    await db.query(`CREATE DATABASE IF NOT EXISTS \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    await db.query(`USE \`${database}\``);
    const [locked] = await db.execute<RowDataPacket[]>("SELECT GET_LOCK(?, ?) AS got", [LOCK, LOCK_WAIT_S]);
    if (locked[0]?.got !== 1) throw new Error("Another migration is running and did not finish within a minute.");
    await db.query(
      `CREATE TABLE IF NOT EXISTS schema_migration (
        number INT UNSIGNED NOT NULL PRIMARY KEY, name VARCHAR(80) NOT NULL, checksum CHAR(64) NOT NULL,
        statements_done INT UNSIGNED NOT NULL, finished_at DATETIME(3) NULL)`,
    );
    const applied: string[] = [];
    for (const migration of readMigrations(options.folder))
      if (await applyOne(db, migration)) applied.push(migration.name);
    // A database that came out of a backup has none: they name the user who made them.
    for (const { statements } of readMigrations(options.folder))
      for (const statement of statements) if (statement.startsWith("CREATE TRIGGER")) await db.query(statement);
    const user = `'${APP_USER}'@'127.0.0.1'`;
    await db.query(`CREATE USER IF NOT EXISTS ${user}`);
    await db.query(`ALTER USER ${user} IDENTIFIED BY ${db.escape(options.appPassword)}`);
    for (const [table, rights] of Object.entries(GRANTS))
      await db.query(`GRANT ${rights} ON \`${database}\`.\`${table}\` TO ${user}`);
    await db.execute("SELECT RELEASE_LOCK(?)", [LOCK]);
    return applied;
  } finally {
    await db.end();
  }
}
