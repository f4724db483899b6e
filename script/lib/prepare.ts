// Migrates the database, puts the default instruments on the shelf and, with --demo, loads the demo jobs.

import { userInfo } from "node:os";
import path from "node:path";
import { SHELF } from "../../src/core/instruments";
import { summaryOf } from "../../src/core/job";
import {
  addInstruments,
  addLessons,
  closePool,
  countLessons,
  FIRST_SHOP,
  insertJob,
  isDuplicate,
  pool,
  transaction,
} from "../../src/store";
import { migrate } from "../../src/store/migrate";
import { demoJobs, demoLessons } from "./demo-jobs";
import { DATABASE, start } from "./mariadb.mjs";

/** Makes the database of a folder ready for the application. @returns its address. */
export async function prepare(options: {
  folder: string;
  demo: boolean;
  flags?: string[];
}): Promise<{ url: string; socket: string }> {
  const db = await start(options.folder, options.flags ?? []);
  await migrate({
    socketPath: db.socket,
    adminUser: userInfo().username,
    database: DATABASE,
    appPassword: db.password,
    folder: path.join(import.meta.dirname, "../../src/store/migrations"),
  });
  process.env.DATABASE_URL = db.url;
  await addInstruments(pool(), null, SHELF);
  if (options.demo && (await countLessons(pool(), FIRST_SHOP)) === 0)
    await addLessons(pool(), FIRST_SHOP, demoLessons());
  if (options.demo)
    for (const { job, changedAt } of demoJobs())
      await transaction((c) => insertJob(c, FIRST_SHOP, job, summaryOf(job), changedAt, "demo")).catch((e) => {
        if (!isDuplicate(e)) throw e;
      });
  await closePool();
  return db;
}

if (process.argv[1] === import.meta.filename) {
  const given = process.argv.slice(2);
  const db = await prepare({
    folder: process.env.PLUMB_DATA ?? ".data/db",
    demo: given.includes("--demo"),
    // What is left are flags for the server itself.
    flags: given.filter((a) => a !== "--demo"),
  });
  process.stdout.write(`${db.url}\n`);
}
