// Invitations that only who sits at the server can give: for the first owner, for one who lost the password, for another shop.
import { userInfo } from "node:os";
import { createConnection } from "mysql2/promise";
import { v4 as uuid } from "uuid";
import { changePerson, invite, peopleOf } from "../../src/server/people";
import type { Caller } from "../../src/server/who";
import { closePool, FIRST_SHOP } from "../../src/store";
import { DATABASE, start } from "./mariadb.mjs";

const folder = process.env.PLUMB_DATA ?? ".data/db";
const callerOf = (shopId: string): Caller => ({ shopId, role: "owner", person: null });

/** An invitation for an owner of a shop by this name: of one who is there, or a new one. */
async function invitationFor(shopId: string, name: string): Promise<string> {
  const who = callerOf(shopId);
  const shop = await peopleOf(who);
  const known = shop.ok ? shop.value.people.find((p) => p.name.toLowerCase() === name.toLowerCase()) : undefined;
  if (known && known.role !== "owner") await changePerson(who, known.id, { do: "role", role: "owner" });
  const made = known ? await changePerson(who, known.id, { do: "invite" }) : await invite(who, { name, role: "owner" });
  if (!made.ok) throw new Error(made.message);
  return made.value?.code ?? "";
}

/** For the first owner, while there is none who has come in; nothing otherwise. */
async function first(): Promise<string> {
  const shop = await peopleOf(callerOf(FIRST_SHOP));
  const hasOwner =
    shop.ok &&
    shop.value.people.some(
      (p) => p.role === "owner" && (p.hasPassword || shop.value.devices.some((d) => d.personId === p.id)),
    );
  return hasOwner ? "" : invitationFor(FIRST_SHOP, process.env.PLUMB_OWNER ?? "Owner");
}

async function newShop(name: string): Promise<string> {
  const { socket } = await start(folder);
  const db = await createConnection({ socketPath: socket, user: userInfo().username, database: DATABASE });
  const id = uuid();
  await db.execute("INSERT INTO shop (id, name) VALUES (?, ?)", [id, name.slice(0, 80)]);
  await db.end();
  return invitationFor(id, "Owner");
}

const [what, name = ""] = process.argv.slice(2);
try {
  if (what === "--first") process.stdout.write(await first());
  else {
    const code = what === "--new-shop" ? await newShop(name) : await invitationFor(FIRST_SHOP, name);
    console.log(`· Open within three days, on the server's address: /join#code=${code}`);
  }
} catch (e) {
  console.error(`✗ ${e instanceof Error ? e.message : e}`);
  process.exitCode = 1;
} finally {
  await closePool();
}
