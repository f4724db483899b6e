// backup.mjs backup [FILE] [--encrypt] | restore FILE [--beside] | done FOLDER
import { spawn } from "node:child_process";
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from "node:crypto";
import {
  closeSync,
  createReadStream,
  createWriteStream,
  existsSync,
  openSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
} from "node:fs";
import { userInfo } from "node:os";
import path from "node:path";
import { createInterface } from "node:readline/promises";
import { Transform, Writable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import { DATABASE, layout, Plain, runningPid, start, stop, usersOf } from "./mariadb.mjs";

const MAGIC = Buffer.from("PLUMBENC1");
const [SALT, IV, TAG] = [16, 12, 16];
const HEAD = MAGIC.length + SALT + IV;
/** The last line of a dump that was not cut off. */
const END = "-- Dump completed";
/** As of one moment; triggers name the user who made them, and are made anew by who restores. */
const DUMP = ["--single-transaction", "--hex-blob", "--skip-triggers"];
const folder = process.env.PLUMB_DATA ?? ".data/db";

/** A file as the person at the terminal names it. */
const fileOf = (name) => path.resolve(process.env.PLUMB_CWD ?? ".", name);

const keyOf = (passphrase, salt) => scryptSync(passphrase, salt, 32, { N: 2 ** 16, r: 8, p: 1, maxmem: 2 ** 28 });

async function passphraseOf(question) {
  if (process.env.PLUMB_PASSPHRASE) return process.env.PLUMB_PASSPHRASE;
  if (!process.stdin.isTTY) throw new Plain("Give the passphrase as PLUMB_PASSPHRASE.");
  const asked = createInterface({ input: process.stdin, output: process.stderr });
  const answer = await asked.question(question);
  asked.close();
  if (answer.length < 8) throw new Plain("A passphrase has at least 8 characters.");
  return answer;
}

/** AES-256-GCM: the head before, the seal behind, so that a file that was changed or cut is noticed. */
function sealing(passphrase) {
  const [salt, iv] = [randomBytes(SALT), randomBytes(IV)];
  const cipher = createCipheriv("aes-256-gcm", keyOf(passphrase, salt), iv);
  let begun = false;
  return new Transform({
    transform(chunk, _encoding, done) {
      if (!begun) this.push(Buffer.concat([MAGIC, salt, iv]));
      begun = true;
      done(null, cipher.update(chunk));
    },
    flush(done) {
      this.push(cipher.final());
      this.push(cipher.getAuthTag());
      done();
    },
  });
}

function bytesOf(file, from, length) {
  const fd = openSync(file, "r");
  const out = Buffer.alloc(length);
  readSync(fd, out, 0, length, from);
  closeSync(fd);
  return out;
}

/** The compressed dump inside a file, opened where it is sealed. */
async function contentOf(file) {
  if (!bytesOf(file, 0, MAGIC.length).equals(MAGIC)) return [createReadStream(file)];
  const size = statSync(file).size;
  const head = bytesOf(file, 0, HEAD);
  const passphrase = await passphraseOf("Passphrase of this backup: ");
  const key = keyOf(passphrase, head.subarray(MAGIC.length, MAGIC.length + SALT));
  const open = createDecipheriv("aes-256-gcm", key, head.subarray(MAGIC.length + SALT));
  open.setAuthTag(bytesOf(file, size - TAG, TAG));
  return [createReadStream(file, { start: HEAD, end: size - TAG - 1 }), open];
}

/** Reads a file to its end without keeping it: whole, unchanged, and a dump of ours. */
async function check(file) {
  let head = "";
  let tail = "";
  const look = new Writable({
    write(chunk, _encoding, done) {
      const text = chunk.toString("latin1");
      if (head.length < 4000) head += text;
      tail = (tail + text).slice(-400);
      done();
    },
  });
  try {
    await pipeline(...(await contentOf(file)), createGunzip(), look);
  } catch (e) {
    if (e instanceof Plain) throw e;
    throw new Plain(
      /authenticate|bad decrypt/i.test(e.message)
        ? "This is not its passphrase, or the file was changed."
        : `${file} is not a backup of this program, or it was cut short.`,
    );
  }
  if (!head.includes(DATABASE) || !tail.includes(END))
    throw new Plain(`${file} is not a backup of this program, or it was cut short.`);
}

const client = (program, socket, ...args) => [
  program,
  ["--no-defaults", `-u${userInfo().username}`, "-S", socket, ...args],
];

/** Runs a program of the database with its input or output joined to ours. */
function joined(program, args, stdio) {
  const child = spawn(program, args, { stdio });
  let words = "";
  child.stderr.on("data", (d) => {
    words += d;
  });
  const end = new Promise((resolve, reject) => {
    child.once("error", reject);
    child.once("close", (code) =>
      code === 0 ? resolve() : reject(new Plain(`${program}: ${words.trim().split("\n")[0]}`)),
    );
  });
  return { child, end };
}

async function sql(socket, words) {
  const { end } = joined(...client("mariadb", socket, DATABASE, "-e", words), ["ignore", "ignore", "pipe"]);
  await end;
}

async function backup(args) {
  const encrypt = args.includes("--encrypt");
  const day = new Date().toISOString().slice(0, 16).replace(/[-:]/g, "");
  const file = fileOf(args.find((a) => !a.startsWith("--")) ?? `mellow-plumb-${day}.backup`);
  if (existsSync(file)) throw new Plain(`${file} is there already: choose another name.`);
  const passphrase = encrypt ? await passphraseOf("Passphrase for this backup: ") : null;
  if (!existsSync(path.join(layout(folder).data, "mysql")))
    throw new Plain(`There are no jobs in ${layout(folder).home}.`);
  const ran = runningPid(layout(folder)) !== null;
  const { socket } = await start(folder);
  const part = `${file}.part`;
  try {
    const dump = joined(...client("mariadb-dump", socket, ...DUMP, "--databases", DATABASE), [
      "ignore",
      "pipe",
      "pipe",
    ]);
    const parts = [dump.child.stdout, createGzip(), ...(passphrase ? [sealing(passphrase)] : [])];
    await Promise.all([pipeline(...parts, createWriteStream(part, { mode: 0o600 })), dump.end]);
    if (passphrase) process.env.PLUMB_PASSPHRASE = passphrase;
    await check(part);
    renameSync(part, file);
    await sql(
      socket,
      "INSERT INTO upkeep VALUES ('backup', UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE done_at = UTC_TIMESTAMP(3)",
    );
  } catch (e) {
    rmSync(part, { force: true });
    throw e.code === "ENOSPC" ? new Plain("The disk is full: the backup was not made.") : e;
  } finally {
    if (!ran && usersOf(folder).length === 0) await stop(folder);
  }
  console.log(
    `· ${file}: ${Math.max(1, Math.round(statSync(file).size / 1024))} kB${encrypt ? ", encrypted" : ""}, read through to its end. Keep it on another disk.`,
  );
}

async function restore(args) {
  const name = args.find((a) => !a.startsWith("--"));
  if (!name) throw new Plain("Which file? script/restore FILE [--beside]");
  const file = fileOf(name);
  if (!existsSync(file)) throw new Plain(`There is no ${file}.`);
  const day = new Date().toISOString().slice(0, 19).replace(/[-:]/g, "");
  const into = args.includes("--beside") ? `${path.resolve(folder)}-restored-${day}` : folder;
  if (existsSync(path.join(layout(into).data, "mysql")))
    throw new Plain(`${layout(into).home} holds jobs already. Restore beside them: script/restore ${file} --beside`);
  await check(file);
  const { socket } = await start(into);
  const load = joined(...client("mariadb", socket, "--default-character-set=utf8mb4"), ["pipe", "ignore", "pipe"]);
  await Promise.all([pipeline(...(await contentOf(file)), createGunzip(), load.child.stdin), load.end]);
  console.log(into);
}

async function finish([into]) {
  if (usersOf(into).length === 0) await stop(into);
  const own = path.resolve(into) === path.resolve(".data/db");
  console.log(`· Restored into ${into}. Start it: ${own ? "" : `PLUMB_DATA=${into} `}script/demo, or script/serve`);
}

const [command, ...args] = process.argv.slice(2);
const commands = { backup, restore, done: finish };
await commands[command](args).catch((e) => {
  console.error(e instanceof Plain ? `✗ ${e.message}` : e);
  process.exitCode = 1;
});
