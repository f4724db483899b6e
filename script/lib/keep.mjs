// Keeps the database of a folder and the application running: what ends by itself is started again, after longer and longer waits.
import { spawn } from "node:child_process";
import { existsSync, openSync, renameSync, statSync } from "node:fs";
import path from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { appEnv } from "./appEnv.mjs";
import { layout, leave, Plain, runningPid, start, use } from "./mariadb.mjs";

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 30_000;
/** One that ran so long is started again at once. */
const STEADY_MS = 60_000;
const LOOK_MS = 2000;
/** So many questions without any answer, and the application is taken as hung. */
const MOST_SILENT = 4;
const LOG_LIMIT_BYTES = 8 * 1024 * 1024;

/** Opens a log to add to; one that grew large is laid aside first. */
function openLog(file) {
  if (existsSync(file) && statSync(file).size > LOG_LIMIT_BYTES) renameSync(file, `${file}.1`);
  return openSync(file, "a");
}

/**
 * Runs the application and its database until it is told to end.
 * @param options.folder of the database. @param options.port the application's, on loopback. @param options.env for the application.
 * @param options.byHand whether somebody started the database before: it is then theirs to stop. @param options.log file of its log. @param options.cwd where server.js lies. @param options.say tells the person at the terminal.
 * @returns `end()`, which stops what was started here and nothing else.
 */
export async function keep({ folder, port, env, byHand, log, cwd, say }) {
  const at = layout(folder);
  use(folder);
  let ended = false;
  let app = null;

  const wait = (tries) => sleep(Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** tries));

  const keepDatabase = async () => {
    for (let tries = 0; !ended; ) {
      if (runningPid(at)) {
        await sleep(LOOK_MS);
        continue;
      }
      say("The database is not running: starting it again");
      try {
        await start(folder);
        say("The database runs again");
        tries = 0;
      } catch (e) {
        say(e instanceof Plain ? e.message : `The database does not start: ${e.message}`);
        await wait(tries++);
      }
    }
  };

  const keepApplication = async () => {
    for (let tries = 0; !ended; ) {
      const out = openLog(log);
      const from = Date.now();
      app = spawn(process.execPath, ["server.js"], {
        cwd,
        env: { ...appEnv(port), ...env },
        stdio: ["ignore", out, out],
      });
      const code = await new Promise((resolve) => app.once("exit", (c, signal) => resolve(signal ?? c)));
      app = null;
      if (ended) return;
      tries = Date.now() - from > STEADY_MS ? 0 : tries + 1;
      say(
        `The application ended by itself (${code}): starting it again; its log is ${path.relative(process.cwd(), log)}`,
      );
      await wait(tries);
    }
  };

  /** One that runs and answers nothing is ended, to be started again. */
  const watchAnswers = async () => {
    for (let silent = 0; !ended; await sleep(5 * LOOK_MS)) {
      const answered = await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(10_000) }).then(
        () => true,
        () => false,
      );
      silent = answered || !app ? 0 : silent + 1;
      if (silent < MOST_SILENT) continue;
      say("The application does not answer: ending it");
      app?.kill("SIGKILL");
      silent = 0;
    }
  };

  void keepDatabase();
  void keepApplication();
  void watchAnswers();
  return {
    end: async () => {
      ended = true;
      const running = app;
      if (running) {
        const gone = new Promise((resolve) => running.once("exit", resolve));
        running.kill("SIGTERM");
        await Promise.race([gone, sleep(8000).then(() => running.kill("SIGKILL"))]);
      }
      await leave(folder, { keep: byHand });
    },
  };
}
