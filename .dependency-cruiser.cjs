/** Arrows point down only: app > ui > workers and server > formats and store > core. */
const layer = (name, from, to, comment) => ({
  name,
  severity: "error",
  comment,
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to,
});

/** Inside the core a later stage may read an earlier one, never back. */
const stages = [
  "units",
  "numeric",
  "geometry",
  "instruments",
  "frame",
  "cut",
  "mechanics",
  "weld",
  "bed",
  "fixture",
  "square",
  "shrink",
  "plan",
  "check",
  "learn",
  "drawing",
  "job",
];
const stageRules = stages
  .slice(0, -1)
  .map((stage, i) =>
    layer(
      `core-${stage}-reads-earlier-only`,
      `^src/core/${stage}/`,
      { path: `^src/core/(${stages.slice(i + 1).join("|")})/` },
      `core/${stage} may not read a later stage`,
    ),
  );
/** A room is entered by its index alone. */
const doorRules = stages.map((stage) =>
  layer(
    `core-${stage}-by-its-index`,
    `^src/(?!core/${stage}/)`,
    { path: `^src/core/${stage}/(?!index\\.ts$)` },
    `core/${stage} is imported by its index`,
  ),
);
const outer = "src/(formats|store|server|workers|ui|app|headless)";

module.exports = {
  forbidden: [
    layer("core-stands-alone", "^src/core", { path: `^${outer}` }, "the core imports nothing of ours outside itself"),
    layer(
      "core-is-pure",
      "^src/core",
      { path: "(^|node_modules/)(react|react-dom|next|mysql2|d3[a-z-]*|radix-ui|server-only)(/|$)" },
      "no React, Next, DOM helpers or SQL in the core",
    ),
    layer(
      "core-has-no-node",
      "^src/core",
      { dependencyTypes: ["core"] },
      "the core runs in a worker: no Node built-ins",
    ),
    layer(
      "formats-below",
      "^src/formats",
      { path: "^src/(store|server|workers|ui|app|headless)" },
      "formats read core only",
    ),
    layer(
      "store-below",
      "^src/store",
      { path: "^src/(formats|server|workers|ui|app|headless)" },
      "store reads core only",
    ),
    layer(
      "server-below",
      "^src/server",
      { path: "^src/(ui|app|headless)" },
      "server joins core, formats and store, and hands work to threads",
    ),
    layer("workers-below", "^src/workers", { path: "^src/(store|server|ui|app|headless)" }, "workers wrap the core"),
    layer(
      "ui-below",
      "^src/ui",
      { path: "^src/(store|server|app|headless)" },
      "screens reach the server by its routes",
    ),
    layer(
      "headless-below",
      "^src/headless",
      { path: "^src/(store|server|workers|ui|app)" },
      "the command needs no database",
    ),
    layer("app-to-store", "^src/app", { path: "^src/(store|headless)" }, "routes call use cases, never the store"),
    layer("sql-only-in-store", "^src/(?!store)", { path: "node_modules/mysql2" }, "SQL lives in store"),
    layer(
      "no-circles",
      "^src",
      { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } },
      "no circular imports",
    ),
    ...stageRules,
    ...doorRules,
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "require", "node", "default"] },
  },
};
