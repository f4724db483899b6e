import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import * as z from "zod";
import { type Instrument, instrumentSchema } from "@/core/instruments";
import type { Job } from "@/core/job";
import type { Lesson } from "@/core/learn";
import { fail, ok, type Result } from "@/core/units";
import { type TestBead, testBeadSchema } from "@/core/weld";
import { readJobFile, writeJobFile } from "./jobFile";
import { parseJson } from "./json";
import { readLessonsFile, writeLessonsFile } from "./lessonsFile";

const SHOP_FORMAT = "mellow-plumb-shop";
const SHOP_VERSION = 1;
/** Largest archive that is read, bytes, and what it may unpack to. */
export const ARCHIVE_LIMIT_BYTES = 64 * 1024 * 1024;
const UNPACKED_LIMIT_BYTES = 512 * 1024 * 1024;
const MOST_FILES = 20_000;
/** Of every file in an archive: the archive of the same shop is the same to the byte. Source: the zip format begins in 1980. */
const MTIME = new Date(Date.UTC(1980, 0, 2));

const headSchema = z.strictObject({
  format: z.literal(SHOP_FORMAT, "Not an archive of a shop of this program."),
  formatVersion: z.literal(SHOP_VERSION),
  shop: z.strictObject({ id: z.uuid(), name: z.string().max(80) }),
  jobs: z.array(z.strictObject({ id: z.uuid(), away: z.boolean() })).max(MOST_FILES),
});
const shelfSchema = z.array(instrumentSchema).max(5000);
const beadsSchema = z.array(testBeadSchema).max(20_000);

/** A whole shop: every job with its record, the shelf, what was learned, the test beads. */
export interface ShopArchive {
  shop: { id: string; name: string };
  jobs: { job: Job; away: boolean }[];
  instruments: Instrument[];
  lessons: Lesson[];
  testBeads: TestBead[];
}

const json = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);

/** A shop as one zip: `shop.json`, `jobs/<id>.json` as job files, `instruments.json`, `lessons.json`, `test-beads.json`. */
export function writeArchive({ shop, jobs, instruments, lessons, testBeads }: ShopArchive): Uint8Array {
  const head = {
    format: SHOP_FORMAT,
    formatVersion: SHOP_VERSION,
    shop,
    jobs: jobs.map(({ job, away }) => ({ id: job.id, away })),
  };
  return zipSync(
    {
      "shop.json": json(head),
      "instruments.json": json(instruments),
      "lessons.json": strToU8(writeLessonsFile(shop, lessons)),
      "test-beads.json": json(testBeads),
      ...Object.fromEntries(jobs.map(({ job }) => [`jobs/${job.id}.json`, strToU8(writeJobFile(job))])),
    },
    { level: 6, mtime: MTIME },
  );
}

/** Files of a zip, unless it would unpack to more than any shop. */
function unpacked(bytes: Uint8Array): Result<Record<string, Uint8Array>> {
  let total = 0;
  let files = 0;
  let isTooLarge = false;
  try {
    const found = unzipSync(bytes, {
      filter: ({ originalSize }) => {
        total += originalSize;
        files++;
        isTooLarge ||= total > UNPACKED_LIMIT_BYTES || files > MOST_FILES;
        return !isTooLarge;
      },
    });
    if (isTooLarge) return fail("This archive would unpack to more than any shop has: it is not read.");
    return ok(found);
  } catch {
    return fail("This archive is broken: it cannot be unpacked.");
  }
}

/** A file of an archive by a schema; what is wrong with it names the file. */
function part<T>(files: Record<string, Uint8Array>, name: string, schema: z.ZodType<T>): Result<T> {
  const bytes = files[name];
  if (!bytes) return fail(`${name} is missing in the archive.`);
  const data = parseJson(strFromU8(bytes));
  if (!data.ok) return fail(`${name}: ${data.message}`);
  const read = schema.safeParse(data.value);
  const wrong = read.success ? null : read.error.issues[0];
  return read.success ? ok(read.data) : fail(`${name}: ${wrong?.path.join(".") ?? ""}: ${wrong?.message ?? "wrong"}`);
}

/** Head of an archive: whose shop and how many jobs. */
function readHead(files: Record<string, Uint8Array>): Result<z.infer<typeof headSchema>> {
  const bytes = files["shop.json"];
  if (!bytes) return fail("This zip is no archive of a shop: it has no shop.json.");
  const data = parseJson(strFromU8(bytes));
  const version = data.ok ? (data.value as { formatVersion?: unknown } | null)?.formatVersion : undefined;
  if (typeof version === "number" && version > SHOP_VERSION)
    return fail(
      `This archive was written by a later version (${version}; this one reads ${SHOP_VERSION}). Update first.`,
    );
  return part(files, "shop.json", headSchema);
}

/** An archive as it was read. */
export interface ReadShop extends ShopArchive {
  /** Jobs that could not be read, each as `jobs/<id>.json: why`. */
  unread: string[];
}

/** A job of an archive, by the file that it must be in. */
function readJob(files: Record<string, Uint8Array>, id: string): Result<Job> {
  const name = `jobs/${id}.json`;
  const file = files[name];
  if (!file) return fail(`${name} is missing in the archive.`);
  const read = readJobFile(strFromU8(file));
  if (!read.ok) return fail(`${name}: ${read.problems[0]?.path}: ${read.problems[0]?.message}`);
  return read.job.id === id ? ok(read.job) : fail(`${name} holds another job.`);
}

/** Reads an archive. One job that cannot be read is named, and keeps back no other; where none can be, nothing is read. */
export function readArchive(bytes: Uint8Array): Result<ReadShop> {
  if (bytes.byteLength > ARCHIVE_LIMIT_BYTES) return fail("This archive is larger than any shop's (64 MB).");
  const files = unpacked(bytes);
  if (!files.ok) return files;
  const head = readHead(files.value);
  if (!head.ok) return head;
  const instruments = part(files.value, "instruments.json", shelfSchema);
  if (!instruments.ok) return instruments;
  const testBeads = part(files.value, "test-beads.json", beadsSchema);
  if (!testBeads.ok) return testBeads;
  const learned = files.value["lessons.json"];
  const lessons = learned ? readLessonsFile(strFromU8(learned)) : null;
  if (!lessons?.ok)
    return fail(`lessons.json: ${lessons ? lessons.problems[0]?.message : "it is missing in the archive."}`);
  const jobs: ShopArchive["jobs"] = [];
  const unread: string[] = [];
  for (const { id, away } of head.value.jobs) {
    const read = readJob(files.value, id);
    if (read.ok) jobs.push({ job: read.value, away });
    else unread.push(read.message);
  }
  const [first] = unread;
  if (jobs.length === 0 && first) return fail(`Not one of its jobs can be read. ${first}`);
  return ok({
    shop: head.value.shop,
    jobs,
    instruments: instruments.value,
    lessons: lessons.file.lessons,
    testBeads: testBeads.value,
    unread,
  });
}
