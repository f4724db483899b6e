import { readFileSync, statSync } from "node:fs";
import {
  JOB_FILE_LIMIT_BYTES,
  ordersData,
  ordersText,
  readJobFile,
  reportData,
  reportText,
  simulationData,
  simulationText,
} from "@/formats";

const USAGE = `Usage: script/plumb COMMAND JOBFILE.json [--json]

  report     what the screens would say about a job: cut list, prediction, shims, nudge, order, verdict
  simulate   every tack and bead in order: what it does to the frame, the cold shape with bands, what to set up
  orders     every pair of schools worked through: the chance that every limit is kept, and which is advised
  --json     the same as data
`;

/** What each command says of a job, as text and as data. */
const COMMANDS = {
  report: { text: reportText, data: reportData },
  simulate: { text: simulationText, data: simulationData },
  orders: { text: ordersText, data: ordersData },
} as const;
const isCommand = (word: string | undefined): word is keyof typeof COMMANDS => word !== undefined && word in COMMANDS;

/** Where the command writes. */
interface Streams {
  out: (text: string) => void;
  err: (text: string) => void;
}

/**
 * The headless command. @param args what was typed after its name. @returns the exit code: 0, or 2 for wrong input.
 */
export function plumb(args: readonly string[], { out, err }: Streams): number {
  const flags = args.filter((a) => a.startsWith("-"));
  const [command, file, ...more] = args.filter((a) => !a.startsWith("-"));
  if (flags.includes("--help") || flags.includes("-h")) {
    out(USAGE);
    return 0;
  }
  const unknown = flags.find((f) => f !== "--json");
  if (unknown !== undefined || !isCommand(command) || !file || more.length > 0) {
    err(
      `${unknown !== undefined ? `Unknown option ${unknown}.` : command && !isCommand(command) ? `Unknown command "${command}".` : "Name one job file."}\n${USAGE}`,
    );
    return 2;
  }
  let text: string;
  try {
    const { size } = statSync(file);
    if (size > JOB_FILE_LIMIT_BYTES) {
      err(
        `${file}: ${(size / 1e6).toFixed(0)} MB is larger than any job file (${JOB_FILE_LIMIT_BYTES / 1024 / 1024} MiB).\n`,
      );
      return 2;
    }
    text = readFileSync(file, "utf8");
  } catch (e) {
    err(`${file}: cannot be read (${e instanceof Error && "code" in e ? String(e.code) : "unknown error"}).\n`);
    return 2;
  }
  const read = readJobFile(text);
  if (!read.ok) {
    err(read.problems.map((p) => `${file}: ${p.path}: ${p.message}\n`).join(""));
    return 2;
  }
  const { text: words, data } = COMMANDS[command];
  out(flags.includes("--json") ? `${JSON.stringify(data(read.job), null, 2)}\n` : words(read.job));
  return 0;
}
