import { plumb } from "./plumb";

// Files are named from where the command was typed, not from where its code lives.
if (process.env.PLUMB_CWD) process.chdir(process.env.PLUMB_CWD);
// Whoever reads may have read enough: `plumb report … | head` ends there.
process.stdout.on("error", (e: NodeJS.ErrnoException) => {
  if (e.code !== "EPIPE") throw e;
  process.exit(0);
});
process.exitCode = plumb(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
});
