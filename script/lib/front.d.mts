import type { Server } from "node:https";

export function front(options: {
  tls: { key: string | Buffer; cert: string | Buffer; authority?: string | Buffer };
  target: string;
  hosts: readonly string[];
}): Server;
