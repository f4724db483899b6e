import "server-only";
import { v4 as uuid } from "uuid";
import * as z from "zod";
import { visibleName } from "@/core/units";
import * as store from "@/store";
import { done, type Outcome, parse, type Refusal, refuse } from "./outcome";
import { hashPassword, isPassword, nobodysHash, secret } from "./secrets";
import { type Caller, DEVICE_DAYS, digest, outsideAddress } from "./who";

/** An invitation is good for so long, hours; a code for one's own next device, held before its camera at once, for less. */
const INVITED_HOURS = 72;
const OWN_HOURS = 1;
/** Tries at one name, or from one address, within a quarter of an hour. */
const TRIES = { name: 8, address: 40, minutes: 15 };
const PEOPLE_LIMIT = 500;

const ROLES = ["owner", "welder", "looks"] as const;
const nameSchema = visibleName("Give a name.", 48);
const passwordSchema = z
  .string("Type a password.")
  .min(12, "At least 12 characters: a few words do.")
  .max(128, "At most 128 characters.");
const deviceSchema = z.string().trim().max(80, "At most 80 characters.").default("a device");

const inviteSchema = z.strictObject({ name: nameSchema, role: z.enum(ROLES) });
const joinSchema = z.strictObject({
  code: z.string().min(10, "This is no invitation.").max(100, "This is no invitation."),
  password: passwordSchema.nullable(),
  device: deviceSchema,
});
const signInSchema = z.strictObject({
  name: z.string().trim().min(1, "Type your name.").max(48, "At most 48 characters."),
  password: z.string().min(1, "Type your password.").max(128, "At most 128 characters."),
  device: deviceSchema,
});
const changeSchema = z.union([
  z.strictObject({ do: z.literal("role"), role: z.enum(ROLES) }),
  z.strictObject({ do: z.enum(["leave", "come back", "invite"]) }),
]);
const passwordChangeSchema = z.strictObject({ old: z.string().max(128).nullable(), password: passwordSchema });

/** What a device is given: its token, to be kept in a cookie. */
export interface SignedIn {
  token: string;
  name: string;
}

const by = (who: Caller): string => who.person?.name ?? "this machine";

async function signInDevice(db: store.Transaction, person: store.Person, device: string): Promise<SignedIn> {
  const token = secret();
  await store.insertDevice(
    db,
    { id: uuid(), token: digest(token), personId: person.id, name: device || "a device" },
    DEVICE_DAYS,
  );
  await store.appendAudit(db, person.shopId, { by: person.name, what: "signed in", about: device || "a device" });
  return { token, name: person.name };
}

/** Who tried too often; words that say until when. */
async function tooOften(subjects: readonly [Buffer, number][]): Promise<Refusal | null> {
  for (const [subject, most] of subjects)
    if ((await store.countFailures(store.pool(), subject, TRIES.minutes)) >= most)
      return refuse(429, `Too many tries. Wait ${TRIES.minutes} minutes.`);
  return null;
}

/** Signs a device in by name and password. @param address where the request comes from. */
export async function signIn(input: unknown, address: string): Promise<Outcome<SignedIn>> {
  const parsed = parse(signInSchema, input);
  if (!parsed.ok) return parsed;
  const { name, password, device } = parsed.value;
  const subjects: [Buffer, number][] = [
    [digest(`name ${name.toLowerCase()}`), TRIES.name],
    [digest(`address ${address}`), TRIES.address],
  ];
  const often = await tooOften(subjects);
  if (often) return often;
  const people = await store.passwordsOf(store.pool(), name);
  // One who is not there is compared too: how long the answer takes does not tell who is.
  const tried = people.length > 0 ? people : [{ person: null, password: await nobodysHash() }];
  for (const { person, password: hash } of tried)
    if ((await isPassword(password, hash)) && person)
      return done(await store.transaction((db) => signInDevice(db, person, device)));
  for (const [subject] of subjects) await store.noteFailure(store.pool(), subject);
  return refuse(401, "Name and password do not go together.");
}

/** Uses an invitation: the device is signed in from then on, and a password may be chosen for others. */
export async function join(input: unknown, address: string): Promise<Outcome<SignedIn>> {
  const parsed = parse(joinSchema, input);
  if (!parsed.ok) return parsed;
  const { code, password, device } = parsed.value;
  const subject = digest(`join ${address}`);
  const often = await tooOften([[subject, TRIES.address]]);
  if (often) return often;
  const hash = password === null ? null : await hashPassword(password);
  const joined = await store.transaction(async (db) => {
    const person = await store.useInvitation(db, digest(code));
    if (!person) return null;
    if (hash) await store.setPassword(db, person.id, hash);
    return signInDevice(db, person, device);
  });
  if (joined) return done(joined);
  await store.noteFailure(store.pool(), subject);
  return refuse(401, "This invitation is used up, withdrawn or too old. Ask for another.");
}

/** Signs this device out. */
export async function signOut(who: Caller): Promise<Outcome<null>> {
  if (!who.person) return done(null);
  await store.endDevice(store.pool(), who.shopId, who.person.deviceId);
  await store.appendAudit(store.pool(), who.shopId, { by: by(who), what: "signed out", about: "" });
  return done(null);
}

/** Everybody of the shop, their devices and what the audit says. */
export async function peopleOf(who: Caller) {
  const db = store.pool();
  return done({
    shop: await store.shopName(db, who.shopId),
    people: await store.listPeople(db, who.shopId),
    devices: await store.listDevices(db, who.shopId),
    audit: await store.listAudit(db, who.shopId, 100),
    you: who.person?.id ?? null,
    device: who.person?.deviceId ?? null,
    address: outsideAddress(),
  });
}

async function invitationFor(
  db: store.Transaction,
  who: Caller,
  person: { id: string; name: string },
  hours = INVITED_HOURS,
) {
  const code = secret();
  await store.insertInvitation(db, digest(code), person.id, hours);
  await store.appendAudit(db, who.shopId, { by: by(who), what: "invited", about: person.name });
  return { code, hours };
}

/** A code by which another device of the same person comes in; null where nobody signs in. */
export async function ownCode(who: Caller): Promise<Outcome<{ code: string; address: string | null } | null>> {
  const { person } = who;
  if (!person) return done(null);
  const { code } = await store.transaction((db) => invitationFor(db, who, person, OWN_HOURS));
  return done({ code, address: outsideAddress() });
}

/** Lets somebody in. @returns a code that is good once. */
export async function invite(who: Caller, input: unknown): Promise<Outcome<{ code: string; hours: number }>> {
  const parsed = parse(inviteSchema, input);
  if (!parsed.ok) return parsed;
  if ((await store.listPeople(store.pool(), who.shopId)).length >= PEOPLE_LIMIT)
    return refuse(422, `A shop has at most ${PEOPLE_LIMIT} people.`);
  try {
    return await store.transaction(async (db) => {
      const person = { id: uuid(), shopId: who.shopId, ...parsed.value };
      await store.insertPerson(db, person);
      return done(await invitationFor(db, who, person));
    });
  } catch (e) {
    if (!store.isDuplicate(e)) throw e;
    const message = `The shop has somebody named ${parsed.value.name} already: choose another name, or invite that person anew.`;
    return refuse(422, message, [{ path: "name", message, severity: "error" }]);
  }
}

/** Changes what somebody may do, sends away, takes back, or invites to one more device. */
export async function changePerson(
  who: Caller,
  id: string,
  input: unknown,
): Promise<Outcome<{ code: string; hours: number } | null>> {
  const parsed = parse(changeSchema, input);
  if (!parsed.ok) return parsed;
  const change = parsed.value;
  return store.transaction(async (db): Promise<Outcome<{ code: string; hours: number } | null>> => {
    const owners = await store.lockOwners(db, who.shopId);
    const person = z.uuid().safeParse(id).success ? await store.lockPerson(db, who.shopId, id) : null;
    if (!person) return refuse(404, "There is no such person in this shop.");
    const losesOwner =
      person.role === "owner" &&
      person.leftAt === null &&
      (change.do === "leave" || (change.do === "role" && change.role !== "owner"));
    if (losesOwner && owners === 1)
      return refuse(422, "A shop keeps at least one owner: make somebody else one first.");
    if (change.do === "invite" && person.leftAt !== null)
      return refuse(422, `${person.name} has left: let them come back first.`);
    if (change.do === "invite") return done(await invitationFor(db, who, person));
    if (change.do === "role") await store.setRole(db, id, change.role);
    else await store.setLeft(db, id, change.do === "leave");
    const what = change.do === "role" ? `made ${change.role}` : change.do === "leave" ? "sent away" : "took back";
    await store.appendAudit(db, who.shopId, { by: by(who), what, about: person.name });
    return done(null);
  });
}

/** Withdraws a device: it is signed out at its next word. */
export async function withdrawDevice(who: Caller, id: string): Promise<Outcome<null>> {
  const ended = z.uuid().safeParse(id).success && (await store.endDevice(store.pool(), who.shopId, id));
  if (!ended) return refuse(404, "There is no such device signed in.");
  await store.appendAudit(store.pool(), who.shopId, { by: by(who), what: "withdrew a device", about: id });
  return done(null);
}

/** Changes one's own password; every other device of that person is signed out. */
export async function changePassword(who: Caller, input: unknown): Promise<Outcome<null>> {
  const { person } = who;
  if (!person) return refuse(422, "Nobody signs in on this machine.");
  const parsed = parse(passwordChangeSchema, input);
  if (!parsed.ok) return parsed;
  const subject = digest(`password ${person.id}`);
  const often = await tooOften([[subject, TRIES.name]]);
  if (often) return often;
  const kept = (await store.passwordsOf(store.pool(), person.name)).find((p) => p.person.id === person.id);
  if (kept && !(await isPassword(parsed.value.old ?? "", kept.password))) {
    await store.noteFailure(store.pool(), subject);
    const message = "This is not the password so far.";
    return refuse(422, message, [{ path: "old", message, severity: "error" }]);
  }
  const hash = await hashPassword(parsed.value.password);
  await store.transaction(async (db) => {
    await store.setPassword(db, person.id, hash);
    await store.endOtherDevices(db, person.id, person.deviceId);
    await store.appendAudit(db, who.shopId, { by: person.name, what: "changed the password", about: "" });
  });
  return done(null);
}
