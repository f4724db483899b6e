import { IDLE_MS } from "./idle.mjs";

/** What the built application is started with: on loopback alone. @param port that it listens on. */
export const appEnv = (port) => ({
  ...process.env,
  NODE_ENV: /** @type {const} */ ("production"),
  HOSTNAME: "127.0.0.1",
  PORT: String(port),
  KEEP_ALIVE_TIMEOUT: String(IDLE_MS),
});
