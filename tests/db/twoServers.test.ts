import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir, userInfo } from "node:os";
import path from "node:path";
import { createConnection, type RowDataPacket } from "mysql2/promise";
import { describe, expect, it } from "vitest";
import { DATABASE, reset, start } from "../../script/lib/mariadb.mjs";

describe("two servers on one machine", () => {
  it("leave each other's temporary tables alone: one that starts while the other is at work does not disturb it", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "plumb-two-"));
    const db = await createConnection({
      socketPath: process.env.PLUMB_TEST_SOCKET ?? "",
      user: userInfo().username,
      database: DATABASE,
    });
    try {
      await db.query("create temporary table held (id int primary key, word longtext) engine=aria");
      await db.query("insert into held select seq, repeat('tube ', 40) from seq_1_to_3000");
      const other = await start(folder, ["--innodb-buffer-pool-size=16M"]);
      expect(other.started).toBe(true);
      await db.query("flush tables");
      const [rows] = await db.query<RowDataPacket[]>("select count(*) as n, max(length(word)) as l from held");
      expect(rows[0]).toMatchObject({ n: 3000, l: 200 });
      // A question that needs a table on the disk of its own.
      const [sorted] = await db.query<RowDataPacket[]>(
        "select word, count(*) n from (select word from held union all select concat(word, id) from held) u group by word order by n desc limit 1",
      );
      expect(sorted[0]).toMatchObject({ n: 3000 });
    } finally {
      await db.end();
      await reset(folder);
      rmSync(folder, { recursive: true, force: true });
    }
  }, 90_000);
});
