// script/db start|stop|status|reset
import { readFileSync } from "node:fs";
import { layout, Plain, reset, runningPid, start, stop } from "./mariadb.mjs";

const folder = process.env.PLUMB_DATA ?? ".data/db";
const commands = {
  async start() {
    const db = await start(folder);
    console.log(
      `MariaDB ${db.started ? "started" : "was running already"}: 127.0.0.1:${db.port}, data in ${layout(folder).home}`,
    );
  },
  async stop() {
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
  async reset() {
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
