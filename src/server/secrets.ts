import "server-only";
import { randomBytes } from "node:crypto";
import { argon2id, argon2Verify } from "hash-wasm";

/** Memory, KiB, passes and lanes of a hash: the least that OWASP's password storage cheat sheet gives for argon2id (from memory). */
const COST = { memorySize: 19_456, iterations: 2, parallelism: 1, hashLength: 32 };

/** A password as it is kept: argon2id with a salt of its own. */
export const hashPassword = (password: string): Promise<string> =>
  argon2id({ password: password.normalize("NFKC"), salt: randomBytes(16), ...COST, outputType: "encoded" });

/** Whether a password is the one that was kept. */
export const isPassword = (password: string, hash: string): Promise<boolean> =>
  argon2Verify({ password: password.normalize("NFKC"), hash });

/** A hash that no password has: compared with where a name is unknown, so that both take alike. */
let nobody: Promise<string> | null = null;
export const nobodysHash = (): Promise<string> => {
  nobody ??= hashPassword(randomBytes(32).toString("base64url"));
  return nobody;
};

/** A secret that nobody guesses: 192 bits. */
export const secret = (): string => randomBytes(24).toString("base64url");
