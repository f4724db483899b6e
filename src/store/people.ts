import type { Pool, PoolConnection, ResultSetHeader, RowDataPacket } from "mysql2/promise";
import { isoTime } from "./time";

type Db = Pool | PoolConnection;

/** The shop that is there from the beginning. */
export const FIRST_SHOP = "00000000-0000-4000-8000-000000000001";

/** What a person may do: an owner lets people in and out, a welder works, one who looks changes nothing. */
export type Role = "owner" | "welder" | "looks";

export interface Person {
  id: string;
  shopId: string;
  name: string;
  role: Role;
  /** Whether a password was chosen: without one only an invited device comes in. */
  hasPassword: boolean;
  leftAt: string | null;
}

/** A device that is signed in. */
export interface Device {
  id: string;
  personId: string;
  name: string;
  seenAt: string;
}

const PERSON = `p.id AS id, p.shop_id AS shopId, p.name AS name, p.role AS role, p.password IS NOT NULL AS hasPassword,
  ${isoTime("p.left_at")} AS leftAt`;
const personOf = (r: RowDataPacket): Person => ({ ...(r as unknown as Person), hasPassword: Boolean(r.hasPassword) });

/** Everybody of a shop, also who left. */
export async function listPeople(db: Db, shopId: string): Promise<Person[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${PERSON} FROM person p WHERE p.shop_id = ? ORDER BY p.left_at IS NOT NULL, p.name`,
    [shopId],
  );
  return rows.map(personOf);
}

/** A person of a shop, its row locked; null when there is none. */
export async function lockPerson(db: PoolConnection, shopId: string, id: string): Promise<Person | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${PERSON} FROM person p WHERE p.id = ? AND p.shop_id = ? FOR UPDATE`,
    [id, shopId],
  );
  return rows[0] ? personOf(rows[0]) : null;
}

/** @throws a duplicate-key error when the shop has somebody of that name. */
export async function insertPerson(
  db: Db,
  person: { id: string; shopId: string; name: string; role: Role },
): Promise<void> {
  await db.execute("INSERT INTO person (id, shop_id, name, role) VALUES (?, ?, ?, ?)", [
    person.id,
    person.shopId,
    person.name,
    person.role,
  ]);
}

/** How many owners of a shop have not left. Their rows are locked, so that two do not send each other away. */
export async function lockOwners(db: PoolConnection, shopId: string): Promise<number> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT id FROM person WHERE shop_id = ? AND role = 'owner' AND left_at IS NULL FOR UPDATE",
    [shopId],
  );
  return rows.length;
}

export async function setRole(db: Db, id: string, role: Role): Promise<void> {
  await db.execute("UPDATE person SET role = ? WHERE id = ?", [role, id]);
}

/** Somebody leaves, or comes back: who leaves is signed out everywhere, and invitations end. */
export async function setLeft(db: PoolConnection, id: string, left: boolean): Promise<void> {
  await db.execute(`UPDATE person SET left_at = ${left ? "UTC_TIMESTAMP(3)" : "NULL"} WHERE id = ?`, [id]);
  if (!left) return;
  await db.execute("UPDATE device SET ended_at = UTC_TIMESTAMP(3) WHERE person_id = ? AND ended_at IS NULL", [id]);
  await db.execute("UPDATE invitation SET used_at = UTC_TIMESTAMP(3) WHERE person_id = ? AND used_at IS NULL", [id]);
}

/** @param password an encoded hash. */
export async function setPassword(db: Db, id: string, password: string): Promise<void> {
  await db.execute("UPDATE person SET password = ? WHERE id = ?", [password, id]);
}

/** Who goes by this name and has a password: one in each shop may. */
export async function passwordsOf(db: Db, name: string): Promise<{ person: Person; password: string }[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${PERSON}, p.password AS hash FROM person p WHERE p.name = ? AND p.password IS NOT NULL AND p.left_at IS NULL LIMIT 5`,
    [name],
  );
  return rows.map(({ hash, ...r }) => ({ person: personOf(r as RowDataPacket), password: hash as string }));
}

/** @param code SHA-256 of the code. @param hours good for so long. */
export async function insertInvitation(db: Db, code: Buffer, personId: string, hours: number): Promise<void> {
  await db.execute(
    "INSERT INTO invitation (code, person_id, until_at) VALUES (?, ?, UTC_TIMESTAMP(3) + INTERVAL ? HOUR)",
    [code, personId, hours],
  );
}

/** Uses an invitation up. @returns whose it was; null when it is none, was used, or is too old. */
export async function useInvitation(db: PoolConnection, code: Buffer): Promise<Person | null> {
  const [result] = await db.execute<ResultSetHeader>(
    "UPDATE invitation SET used_at = UTC_TIMESTAMP(3) WHERE code = ? AND used_at IS NULL AND until_at > UTC_TIMESTAMP(3)",
    [code],
  );
  if (result.affectedRows !== 1) return null;
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${PERSON} FROM invitation i JOIN person p ON p.id = i.person_id WHERE i.code = ? AND p.left_at IS NULL`,
    [code],
  );
  return rows[0] ? personOf(rows[0]) : null;
}

/** Signs a device in. @param token SHA-256 of the token. @param days it may lie unused for so long. */
export async function insertDevice(
  db: Db,
  device: { id: string; token: Buffer; personId: string; name: string },
  days: number,
): Promise<void> {
  await db.execute(
    `INSERT INTO device (id, token, person_id, name, until_at)
     VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3) + INTERVAL ? DAY)`,
    [device.id, device.token, device.personId, device.name, days],
  );
}

/** Whose device this is, when it is signed in; its time runs anew, written at most once an hour. */
export async function personOfDevice(
  db: Db,
  token: Buffer,
  days: number,
): Promise<{ person: Person; deviceId: string } | null> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT ${PERSON}, d.id AS deviceId, d.seen_at < UTC_TIMESTAMP(3) - INTERVAL 1 HOUR AS isLong
     FROM device d JOIN person p ON p.id = d.person_id
     WHERE d.token = ? AND d.ended_at IS NULL AND d.until_at > UTC_TIMESTAMP(3) AND p.left_at IS NULL`,
    [token],
  );
  const row = rows[0];
  if (!row) return null;
  const { deviceId, isLong, ...person } = row;
  if (isLong)
    await db.execute(
      "UPDATE device SET seen_at = UTC_TIMESTAMP(3), until_at = UTC_TIMESTAMP(3) + INTERVAL ? DAY WHERE id = ?",
      [days, deviceId],
    );
  return { person: personOf(person as RowDataPacket), deviceId: deviceId as string };
}

/** Devices of a shop that are signed in. */
export async function listDevices(db: Db, shopId: string): Promise<Device[]> {
  const [rows] = await db.execute<RowDataPacket[]>(
    `SELECT d.id AS id, d.person_id AS personId, d.name AS name, ${isoTime("d.seen_at")} AS seenAt
     FROM device d JOIN person p ON p.id = d.person_id
     WHERE p.shop_id = ? AND d.ended_at IS NULL AND d.until_at > UTC_TIMESTAMP(3) ORDER BY d.seen_at DESC`,
    [shopId],
  );
  return rows as unknown as Device[];
}

/** Signs a device of a shop out. @returns false when there is none. */
export async function endDevice(db: Db, shopId: string, id: string): Promise<boolean> {
  const [result] = await db.execute<ResultSetHeader>(
    `UPDATE device d JOIN person p ON p.id = d.person_id SET d.ended_at = UTC_TIMESTAMP(3)
     WHERE d.id = ? AND p.shop_id = ? AND d.ended_at IS NULL`,
    [id, shopId],
  );
  return result.affectedRows === 1;
}

/** Ends every device of a person but one. */
export async function endOtherDevices(db: Db, personId: string, but: string): Promise<void> {
  await db.execute(
    "UPDATE device SET ended_at = UTC_TIMESTAMP(3) WHERE person_id = ? AND id <> ? AND ended_at IS NULL",
    [personId, but],
  );
}

/** Notes a try that failed. @param subject SHA-256 of what was tried at. Those of yesterday are forgotten. */
export async function noteFailure(db: Db, subject: Buffer): Promise<void> {
  await db.execute("INSERT INTO failed_try (subject) VALUES (?)", [subject]);
  await db.execute("DELETE FROM failed_try WHERE tried_at < UTC_TIMESTAMP(3) - INTERVAL 1 DAY LIMIT 1000");
}

/** Tries that failed of late. @param minutes how far back. */
export async function countFailures(db: Db, subject: Buffer, minutes: number): Promise<number> {
  const [rows] = await db.execute<RowDataPacket[]>(
    "SELECT COUNT(*) AS n FROM failed_try WHERE subject = ? AND tried_at > UTC_TIMESTAMP(3) - INTERVAL ? MINUTE",
    [subject, minutes],
  );
  return Number(rows[0]?.n ?? 0);
}

export interface AuditLine {
  at: string;
  by: string;
  what: string;
  about: string;
}

export async function appendAudit(db: Db, shopId: string, line: Omit<AuditLine, "at">): Promise<void> {
  await db.execute("INSERT INTO audit (shop_id, by_name, what, about) VALUES (?, ?, ?, ?)", [
    shopId,
    line.by,
    line.what,
    line.about,
  ]);
}

/** The newest lines of a shop's audit. */
export async function listAudit(db: Db, shopId: string, most: number): Promise<AuditLine[]> {
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT ${isoTime("at")} AS at, by_name AS \`by\`, what, about FROM audit WHERE shop_id = ? ORDER BY id DESC LIMIT ?`,
    [shopId, most],
  );
  return rows as unknown as AuditLine[];
}

/** Name of a shop. */
export async function shopName(db: Db, shopId: string): Promise<string> {
  const [rows] = await db.execute<RowDataPacket[]>("SELECT name FROM shop WHERE id = ?", [shopId]);
  return String(rows[0]?.name ?? "");
}
