// script/db start|stop|status|reset
import { readFileSync } from "node:fs";
import { layout, Plain, reset, runningPid, start, stop, usersOf } from "./mariadb.mjs";

const folder = process.env.PLUMB_DATA ?? ".data/db";
/** What the application works with is not taken from under it. */
function nobodyWorks() {
  const [pid] = usersOf(folder);
  if (pid) throw new Plain(`The application works with it (process ${pid}): stop that first.`);
}
const commands = {
  async start() {
    const db = await start(folder);
    console.log(
      `MariaDB ${db.started ? "started" : "was running already"}: 127.0.0.1:${db.port}, data in ${layout(folder).home}`,
    );
  },
  async stop() {
    nobodyWorks();
    console.log((await stop(folder)) ? "MariaDB stopped." : "MariaDB was not running.");
  },
  async status() {
    const at = layout(folder);
    const pid = runningPid(at);
    console.log(
      pid
        ? `MariaDB runs: process ${pid}, 127.0.0.1:${readFileSync(at.portFile, "utf8")}, data in ${at.home}`
        : "MariaDB is not running.",
    );
    process.exitCode = pid ? 0 : 3;
  },
  async whose() {
    const isByHand = runningPid(layout(folder)) !== null && usersOf(folder).length === 0;
    console.log(isByHand ? "hand" : "nobody's");
  },
  async reset() {
    nobodyWorks();
    await reset(folder);
    console.log(`MariaDB stopped, its data thrown away: ${layout(folder).home}`);
  },
  async url() {
    console.log(JSON.stringify(await start(folder)));
  },
};

const command = commands[process.argv[2] ?? ""];
if (!command) {
  console.error("Usage: script/db start|stop|status|reset");
  process.exitCode = 2;
} else
  await command().catch((e) => {
    console.error(e instanceof Plain ? `✗ ${e.message}` : e);
    process.exitCode = 1;
  });
