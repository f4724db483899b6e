import { startApp } from "./app";

/** One application for the whole run of driven tests. */
export default async function setup(): Promise<() => Promise<void>> {
  const app = await startApp(["--innodb-flush-log-at-trx-commit=0"]);
  process.env.APP_ADDRESS = app.address;
  process.env.APP_LOG = app.log;
  return app.end;
}
