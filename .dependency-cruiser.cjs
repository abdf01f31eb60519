// The second guard beside ESLint: circles (type imports included) and the direction of the layers.
const only = (name, from, to) => ({
  name,
  severity: "error",
  from: { path: from },
  to: { path: "^src/", pathNot: to },
});

module.exports = {
  forbidden: [
    { name: "no-circular", severity: "error", from: {}, to: { circular: true } },
    {
      name: "one-door",
      comment: "another domain of core is entered by its index.ts",
      severity: "error",
      from: { path: "^src/core/([^/]+)/" },
      to: { path: "^src/core/([^/]+)/.+", pathNot: ["^src/core/$1/", "^src/core/[^/]+/index\\.ts$"] },
    },
    {
      name: "one-door-from-outside",
      severity: "error",
      from: { path: "^src/(?!core/)" },
      to: { path: "^src/core/", pathNot: "^src/core/[^/]+/index\\.ts$" },
    },
    {
      name: "no-rule-sees-the-sheet",
      comment:
        "a stage's rules, summary and steps see the ground that they name; only what stands above composes",
      severity: "error",
      from: {
        path: "^src/core/(?!sheet/|verify/|procedure/|run/|record/|rehearsal/)",
        pathNot: "\\.test\\.ts$",
      },
      to: { path: "^src/core/(sheet|verify|procedure|run|record|rehearsal)/" },
    },
    only("core-imports-core", "^src/core/", "^src/core/"),
    only("db-imports-core", "^src/db/", "^src/(core|db)/"),
    only("contract-imports-core", "^src/contract/", "^src/(core|contract)/"),
    only("server-imports-down", "^src/server/", "^src/(core|db|contract|server)/"),
    only("ui-imports-core", "^src/ui/", "^src/(core|contract|ui)/"),
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default", "types"],
    },
  },
};
