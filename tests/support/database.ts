import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { reset } from "../../script/lib/mariadb.mjs";
import { prepare } from "../../script/lib/prepare";
import { bundleThread } from "../../script/lib/thread.mjs";

/** Faster where losing the last second in a power cut does not matter. */
const RELAXED = ["--innodb-flush-log-at-trx-commit=0", "--innodb-buffer-pool-size=64M"];

/** Starts a database of its own for the run, with the demo in it, and throws it away afterwards. */
export default async function setup(): Promise<() => Promise<void>> {
  const folder = mkdtempSync(path.join(tmpdir(), "plumb-db-"));
  const db = await prepare({ folder, demo: true, flags: RELAXED });
  process.env.DATABASE_URL = db.url;
  process.env.PLUMB_THREAD = path.join(folder, "prediction-thread.mjs");
  await bundleThread(process.env.PLUMB_THREAD);
  process.env.PLUMB_TEST_SOCKET = db.socket;
  return async () => {
    await reset(folder);
    rmSync(folder, { recursive: true, force: true });
  };
}
