import { plumb } from "./plumb";

// Files are named from where the command was typed, not from where its code lives.
if (process.env.PLUMB_CWD) process.chdir(process.env.PLUMB_CWD);
process.exitCode = plumb(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
});
