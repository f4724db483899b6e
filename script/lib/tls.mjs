// Certificates for the shop's own network: an authority of this installation, and one certificate under it for this machine's names.
import { execFileSync } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { hostname, networkInterfaces } from "node:os";
import path from "node:path";
import { Plain } from "./mariadb.mjs";

const AUTHORITY_DAYS = 3650;
/** Phones take no certificate of a server that is good for longer than 825 days. */
const SERVER_DAYS = 397;
const RENEW_DAYS = 30;
const DAY_MS = 86_400_000;

/** Names and addresses by which this machine is reached. @param more names that somebody gave it besides. */
export function ownNames(more = []) {
  const addresses = Object.values(networkInterfaces())
    .flat()
    .filter((i) => i.family === "IPv4" && !i.internal)
    .map((i) => i.address);
  const host = hostname();
  const names = ["localhost", "127.0.0.1", host, host.includes(".") ? host : `${host}.local`, ...addresses, ...more];
  return [...new Set(names.map((n) => n.trim().toLowerCase()).filter((n) => /^[a-z0-9.-]+$/.test(n)))];
}

function openssl(...args) {
  try {
    execFileSync("openssl", args, { stdio: ["ignore", "ignore", "pipe"] });
  } catch (e) {
    throw new Plain(`The certificate could not be made: ${String(e.stderr ?? e.message).split("\n")[0]}`);
  }
}

const isGood = (file, names) => {
  if (!existsSync(file)) return false;
  const cert = new X509Certificate(readFileSync(file));
  const known = cert.subjectAltName ?? "";
  return (
    Date.parse(cert.validTo) - Date.now() > RENEW_DAYS * DAY_MS &&
    names.every((n) => known.includes(isIP(n) ? `IP Address:${n}` : `DNS:${n}`))
  );
};

/**
 * Certificate and key for these names; made anew when a name is not in it or its time runs out. The authority stays: a phone trusts it once.
 * @param folder where they are kept. @returns { key, cert, authority } as PEM.
 */
export function certificates(folder, names) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const at = (name) => path.join(folder, name);
  if (!existsSync(at("authority.crt"))) {
    openssl("ecparam", "-name", "prime256v1", "-genkey", "-noout", "-out", at("authority.key"));
    openssl(
      ...["req", "-x509", "-new", "-key", at("authority.key"), "-sha256", "-days", String(AUTHORITY_DAYS)],
      ...["-subj", "/O=Mellow Plumb/CN=Mellow Plumb of this shop", "-out", at("authority.crt")],
      ...["-addext", "basicConstraints=critical,CA:TRUE,pathlen:0", "-addext", "keyUsage=critical,keyCertSign,cRLSign"],
    );
  }
  if (!isGood(at("server.crt"), names)) {
    const list = names.map((n) => (isIP(n) ? `IP:${n}` : `DNS:${n}`)).join(",");
    writeFileSync(
      at("server.ext"),
      `basicConstraints=CA:FALSE\nkeyUsage=critical,digitalSignature\nextendedKeyUsage=serverAuth\nsubjectAltName=${list}\n`,
    );
    openssl("ecparam", "-name", "prime256v1", "-genkey", "-noout", "-out", at("server.key"));
    openssl("req", "-new", "-key", at("server.key"), "-subj", "/CN=Mellow Plumb", "-out", at("server.csr"));
    openssl(
      ...["x509", "-req", "-in", at("server.csr"), "-CA", at("authority.crt"), "-CAkey", at("authority.key")],
      ...[
        "-CAcreateserial",
        "-sha256",
        "-days",
        String(SERVER_DAYS),
        "-extfile",
        at("server.ext"),
        "-out",
        at("server.crt"),
      ],
    );
    for (const file of ["server.csr", "server.ext"]) rmSync(at(file), { force: true });
  }
  const read = (name) => readFileSync(at(name), "utf8");
  return { key: read("server.key"), cert: read("server.crt"), authority: read("authority.crt") };
}

/** A certificate and its key that somebody brought. */
export function givenCertificate(certFile, keyFile) {
  try {
    const [cert, key] = [readFileSync(certFile, "utf8"), readFileSync(keyFile, "utf8")];
    new X509Certificate(cert);
    return { key, cert, authority: null };
  } catch (e) {
    throw new Plain(`The certificate of PLUMB_CERT and PLUMB_KEY cannot be used: ${e.message}`);
  }
}
