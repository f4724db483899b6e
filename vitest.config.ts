import path from "node:path";
import { defineConfig } from "vitest/config";

const alias = {
  "@": path.join(import.meta.dirname, "src"),
  "server-only": path.join(import.meta.dirname, "tests/support/empty.ts"),
};

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        extends: true,
        test: {
          name: "unit",
          include: ["src/**/*.test.ts", "tests/reference/**/*.test.ts"],
          environment: "node",
          setupFiles: ["tests/support/seed.ts"],
          // The core keeps no state: its modules are read once for all files.
          isolate: false,
          // A busy machine fails no test that asserts no time.
          testTimeout: 600_000,
        },
      },
      {
        extends: true,
        test: {
          name: "db",
          include: ["tests/db/**/*.test.ts"],
          environment: "node",
          globalSetup: ["tests/support/database.ts"],
          testTimeout: 600_000,
          hookTimeout: 300_000,
          fileParallelism: false,
        },
      },
      { extends: true, test: { name: "crash", include: ["tests/crash/**/*.test.ts"], environment: "node" } },
    ],
  },
});
