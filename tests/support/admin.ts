import { userInfo } from "node:os";
import { type Connection, createConnection } from "mysql2/promise";
import { DATABASE } from "../../script/lib/mariadb.mjs";

/** Does something in the database of the run as its administrator: what the application itself may not. */
export async function administrate<T>(work: (db: Connection) => Promise<T>): Promise<T> {
  const db = await createConnection({
    socketPath: process.env.PLUMB_TEST_SOCKET ?? "",
    user: userInfo().username,
    database: DATABASE,
  });
  try {
    return await work(db);
  } finally {
    await db.end();
  }
}
