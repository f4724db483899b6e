import "server-only";
import { createHash } from "node:crypto";
import * as store from "@/store";
import type { Outcome } from "./outcome";
import { done, refuse } from "./outcome";

/** Who asks: every use case works within that shop, and for what that role may do. */
export interface Caller {
  shopId: string;
  role: store.Role;
  /** Null where nobody signs in: one person on a machine of their own. */
  person: { id: string; name: string; deviceId: string } | null;
}

/** Where nobody signs in. */
export const LOCAL: Caller = { shopId: store.FIRST_SHOP, role: "owner", person: null };

/** Whether this server asks who comes: on the network it does, on loopback alone it need not. */
export const mustSignIn = (): boolean => process.env.PLUMB_SIGN_IN === "1";

/** Under which address other devices reach this server; null where none does. */
export function outsideAddress(): string | null {
  const hosts = (process.env.PLUMB_HOSTS ?? "").split(",").filter((h) => h !== "" && !/^(?:localhost|127\.)/.test(h));
  // A number is found without anybody's help; a name needs the network's.
  const host = hosts.find((h) => /^\d+(?:\.\d+){3}/.test(h)) ?? hosts[0];
  return mustSignIn() && host ? `https://${host}` : null;
}

/** Name of the cookie that holds a device's token: by its prefix a browser keeps it to this host and to TLS. */
export const COOKIE = "__Host-plumb";
/** A device that lies unused for so long is signed out, days. */
export const DEVICE_DAYS = 90;

export const digest = (text: string): Buffer => createHash("sha256").update(text).digest();

/** Who holds this token; null when nobody who may come in. @param token the cookie's value. */
export async function callerOf(token: string | undefined): Promise<Caller | null> {
  if (!mustSignIn()) return LOCAL;
  if (!token || token.length > 100) return null;
  const found = await store.personOfDevice(store.pool(), digest(token), DEVICE_DAYS);
  if (!found) return null;
  const { person, deviceId } = found;
  return { shopId: person.shopId, role: person.role, person: { id: person.id, name: person.name, deviceId } };
}

/** What a use case is: to look, to work, or to let people in and out. */
export type Need = "look" | "work" | "own";
const MAY: Record<store.Role, readonly Need[]> = {
  looks: ["look"],
  welder: ["look", "work"],
  owner: ["look", "work", "own"],
};

/** Whether a caller may do what is asked for; with the words when not. */
export function allowed(who: Caller | null, need: Need): Outcome<Caller> {
  if (!who) return refuse(401, "Sign in first.");
  if (MAY[who.role].includes(need)) return done(who);
  return refuse(
    403,
    need === "own"
      ? "Only an owner of the shop may do this."
      : "You may look at the jobs of this shop, not change them.",
  );
}

/** Letters of an origin, as its schema has it. */
const MOST_ORIGIN = 60;

/**
 * Under which name something is entered: of who is signed in, the name that the shop knows. Where the device names somebody else (it was
 * entered before this one signed in, or by another at the same device), that stands behind it.
 */
export function signed(who: Caller, origin: string): string {
  if (!who.person) return origin;
  const { name } = who.person;
  const place = /, bench$/.test(origin) ? "bench" : "desk";
  const said = origin.replace(/, (?:bench|desk)$/, "").trim();
  const other = said === name || said === "unnamed" || said === "" ? "" : ` for ${said}`;
  return `${`${name}${other}`.slice(0, MOST_ORIGIN - place.length - 2)}, ${place}`;
}
