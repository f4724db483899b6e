// What stands before the application on the network: TLS, its own names only, limits on how long a request may take.
import { Agent } from "node:http";
import { createServer } from "node:https";
import { createProxyServer } from "httpxy";
import { IDLE_MS } from "./idle.mjs";

const REQUEST_MS = 120_000;
const MOST_HEADER_BYTES = 16 * 1024;
const MOST_CONNECTIONS = 500;
const YEAR_S = 31_536_000;

const refuse = (res, status, message) => {
  if (res.headersSent) return res.destroy?.();
  res.writeHead(status, { "content-type": "application/json", connection: "close" });
  res.end(JSON.stringify({ message, problems: [] }));
};

/**
 * An HTTPS server that hands requests on to the application.
 * @param options.tls `{ key, cert, authority }`. @param options.target of the application. @param options.hosts names with port, in small
 * letters, that it answers to.
 */
export function front({ tls, target, hosts }) {
  // A connection of its own for every request: one that is used again may have been closed by the other side in that very moment.
  const agent = new Agent({ keepAlive: false });
  const proxy = createProxyServer({ target, agent, proxyTimeout: REQUEST_MS });
  const allowed = new Set(hosts);
  proxy.on("proxyReq", (out, req) => {
    // Whatever a client says of where it comes from, this is where it does.
    out.setHeader("x-forwarded-for", req.socket.remoteAddress ?? "unknown");
    out.setHeader("x-forwarded-proto", "https");
    out.removeHeader("forwarded");
  });
  proxy.on("proxyRes", (answer) => {
    answer.headers["strict-transport-security"] = `max-age=${YEAR_S}`;
  });
  const server = createServer(
    {
      key: tls.key,
      cert: tls.cert,
      minVersion: "TLSv1.2",
      maxHeaderSize: MOST_HEADER_BYTES,
      keepAliveTimeout: IDLE_MS,
      headersTimeout: IDLE_MS + 5000,
      requestTimeout: REQUEST_MS,
    },
    (req, res) => {
      if (!allowed.has((req.headers.host ?? "").toLowerCase()))
        return refuse(res, 421, "This server does not go by that name.");
      if (req.url === "/authority.crt" && tls.authority) {
        res.writeHead(200, {
          "content-type": "application/x-x509-ca-cert",
          "content-disposition": 'attachment; filename="mellow-plumb.crt"',
        });
        return res.end(tls.authority);
      }
      proxy.web(req, res).catch(() => {
        // An abandoned request or an application that is being started again.
        if (!res.destroyed)
          refuse(res, 503, "The program is being started again. Nothing is lost: this is sent again.");
      });
    },
  );
  server.maxConnections = MOST_CONNECTIONS;
  return server;
}
