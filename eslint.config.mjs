import { existsSync, readdirSync } from "node:fs";
import next from "eslint-config-next/core-web-vitals";
import boundaries from "eslint-plugin-boundaries";
import tseslint from "typescript-eslint";
import formats from "./scripts/lint-formats.mjs";

// The layers of docs/architecture.md: an import may only go down.
const elements = [
  { type: "core", pattern: "src/core/*", capture: ["domain"] },
  { type: "db", pattern: "src/db" },
  { type: "contract", pattern: "src/contract" },
  { type: "server", pattern: "src/server" },
  { type: "ui", pattern: "src/ui" },
  { type: "workers", pattern: "src/workers" },
  { type: "app", pattern: "src/app" },
];

// A domain with a stage of its own sees those below it; what stands in no other layer needs no line here.
const stagesOnTop = readdirSync("src/core").filter(
  (domain) =>
    existsSync(`src/core/${domain}/stage.ts`) && !["stage", "network", "media", "storage"].includes(domain),
);

// Inside core the domains form layers; each line may use the lines above it.
const coreLayers = [
  ["units", "result", "text", "estimate", "binary", "document", "job"],
  ["finding", "parameter"],
  ["machine", "identity"],
  ["image"],
  ["work"],
  ["stage"],
  ["network"],
  ["claims"],
  ["site", "compat", "readings"],
  // Stages: each sees the ground that it names, and never the sheet that composes them.
  ["media", "storage", "energy"],
  stagesOnTop,
  ["sheet"],
  ["verify"],
  ["procedure"],
  ["run", "netboot"],
  ["world"],
  ["record", "rehearsal"],
];

const allow = (from, ...to) => ({
  from: { element: { type: from } },
  allow: { to: to.map((type) => ({ element: { type } })) },
});
const corePolicies = coreLayers.flatMap((layer, i) =>
  layer.map((domain) => ({
    from: { element: { type: "core", captured: { domain } } },
    allow: {
      to: [...coreLayers.slice(0, i).flat(), domain, ...(i === 0 ? layer : [])].map((d) => ({
        type: "core",
        captured: { domain: d },
      })),
    },
  })),
);

export default tseslint.config(
  {
    ignores: [
      ".next/**",
      ".derrick/**",
      "node_modules/**",
      "next-env.d.ts",
      "playwright-report/**",
      "test-results/**",
    ],
  },
  ...next,
  ...tseslint.configs.recommended,
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { boundaries },
    settings: {
      "boundaries/elements": elements,
      "import/resolver": { typescript: { project: "tsconfig.json" } },
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: [
            ...corePolicies,
            allow("db", "core", "db"),
            allow("contract", "core", "contract"),
            allow("server", "core", "db", "contract", "server"),
            allow("ui", "core", "contract", "ui"),
            allow("workers", "core", "workers"),
            allow("app", "ui", "server", "contract", "core", "app"),
          ],
        },
      ],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-vars": ["error", { varsIgnorePattern: "^_", argsIgnorePattern: "^_" }],
    },
  },
  {
    // The ui may call server actions, which live beside their routes in app/, but knows them only as props.
    files: ["src/core/**/*.ts"],
    ignores: ["src/core/**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: ["node:*", "react", "next", "next/*", "@/db/*", "@/server/*"] },
      ],
      "no-restricted-globals": ["error", "process", "console", "window", "document", "fetch", "setTimeout"],
      "no-restricted-syntax": [
        "error",
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: "Time is an argument in core.",
        },
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: "Time is an argument in core.",
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: "Random numbers are an argument in core.",
        },
        { selector: ":function[async=true]", message: "Core is synchronous: the driver does the waiting." },
      ],
    },
  },
  {
    // A use case takes the database, the clock, ids and its actor from the desk that it is given.
    files: ["src/server/**/*.ts"],
    ignores: ["src/server/{desk,start,health,database,feed}.ts", "src/server/**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: ["./database", "../database", "./ids", "../ids"],
              importNames: ["database", "now", "newId"],
              message: "Take it from the desk.",
            },
          ],
        },
      ],
    },
  },
  {
    // A screen is a list of sections; the look stands in classes.
    files: ["src/ui/**/*.{ts,tsx}", "src/app/**/*.{ts,tsx}"],
    rules: {
      "max-lines-per-function": ["error", { max: 100 }],
      "no-restricted-syntax": [
        "error",
        {
          selector: "JSXAttribute[name.name='style'] Property[key.name=/^border/]",
          message: "Borders are set by classes of the theme.",
        },
      ],
    },
  },
  {
    // Dates and numbers have one form; what scripts print of a measurement is for developers.
    files: ["src/**/*.{ts,tsx}", "demo/**/*.ts", "scripts/**/*.{ts,mjs}", "simulators/**/*.ts"],
    ignores: ["src/core/units/**", "**/*.test.ts", "scripts/lint-formats.mjs"],
    plugins: { house: { rules: { formats } } },
    rules: { "house/formats": "error" },
  },
  {
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/core/units/**", "**/*.test.ts"],
    rules: { "house/formats": ["error", "numbers"] },
  },
  {
    // One file reads the environment.
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/server/environment.ts", "src/instrumentation.ts"],
    rules: {
      "no-restricted-properties": [
        "error",
        { object: "process", property: "env", message: "Read it in src/server/environment.ts." },
      ],
    },
  },
);
