import { type IncomingMessage, Server, type ServerResponse } from "node:http";

/** Answers TRACE with 405 before the framework sees it: it has no name for the method, and would end as an error of the program. */
export function refuseTrace(): void {
  const { emit } = Server.prototype;
  Server.prototype.emit = function (this: Server, event: string | symbol, ...args: unknown[]): boolean {
    const [request, response] = args as [IncomingMessage, ServerResponse];
    if (event === "request" && request.method === "TRACE") {
      response.writeHead(405, { allow: "GET, HEAD, POST, PUT, OPTIONS", "content-type": "application/json" });
      response.end(JSON.stringify({ message: "This is not done here.", problems: [] }));
      return true;
    }
    return Reflect.apply(emit, this, [event, ...args]);
  };
}
