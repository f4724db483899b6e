import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:http";
import { Agent, request } from "node:https";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import path from "node:path";
import { describe, expect, it } from "vitest";
import { front } from "../../script/lib/front.mjs";
import { certificates } from "../../script/lib/tls.mjs";

describe("what stands before the application on a network", () => {
  it("hands every request on, also to a side that closes its connections between two of them", async () => {
    // A connection that is used again is being closed by the application in that very moment: here, always.
    const used = new WeakSet<object>();
    const target = createServer((req, res) => {
      if (used.has(req.socket)) return req.socket.destroy();
      used.add(req.socket);
      return res.end("here");
    });
    await new Promise<void>((resolve) => target.listen(0, "127.0.0.1", resolve));
    const folder = mkdtempSync(path.join(tmpdir(), "plumb-front-"));
    const { key, cert } = certificates(folder, ["127.0.0.1"]);
    const port = (target.address() as AddressInfo).port;
    const server = front({ tls: { key, cert }, target: `http://127.0.0.1:${port}`, hosts: ["bench.test"] });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    // As a browser does, it keeps its own connections.
    const browser = new Agent({ keepAlive: true });
    const ask = (): Promise<number> =>
      new Promise((resolve, reject) => {
        const at = { port: (server.address() as AddressInfo).port, host: "127.0.0.1", rejectUnauthorized: false };
        const to = { ...at, agent: browser, headers: { host: "bench.test" } };
        request(to, (res) => res.resume().once("end", () => resolve(res.statusCode ?? 0)))
          .once("error", reject)
          .end();
      });
    try {
      for (let round = 0; round < 5; round++) expect(await Promise.all([ask(), ask(), ask()])).toEqual([200, 200, 200]);
    } finally {
      browser.destroy();
      server.close();
      target.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
