import next from "eslint-config-next/core-web-vitals";
import nextTs from "eslint-config-next/typescript";
import prettier from "eslint-config-prettier";
import boundaries from "eslint-plugin-boundaries";

/**
 * The rooms, top to bottom. A room may import from itself and from rooms below it, never from one
 * above.
 */
const ROOMS = ["app", "ui", "workers", "server", "devices", "core"];
const rooms = ROOMS.map((type) => ({ type, pattern: `${type}/**`, partialMatch: false }));

/** What each room may not see although it lies below (house rules stricter than the order). */
const NOT_FOR = { ui: ["server"], workers: ["server"], core: [] };

const policies = ROOMS.map((from, level) => ({
  from: { element: { type: from } },
  allow: {
    to: {
      element: { type: ROOMS.slice(level).filter((to) => !(NOT_FOR[from] ?? []).includes(to)) },
    },
  },
}));

const config = [
  {
    ignores: [
      ".next/**",
      "node_modules/**",
      "var/**",
      "next-env.d.ts",
      "drizzle/**",
      "public/**",
      "test-results/**",
    ],
  },
  ...next,
  ...nextTs,
  {
    files: ["**/*.{ts,tsx}"],
    plugins: { boundaries },
    settings: {
      "boundaries/elements": [
        // Outside the product proper: these may reach into any room.
        { type: "outside", pattern: ["{demo,e2e,bench,scripts,tests}/**"], partialMatch: false },
        ...rooms,
      ],
      "import/resolver": { typescript: { project: "./tsconfig.json" } },
    },
    rules: {
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: [
            ...policies,
            {
              from: { element: { type: "outside" } },
              allow: { to: { element: { type: [...ROOMS, "outside"] } } },
            },
          ],
        },
      ],
      "no-warning-comments": ["error", { terms: ["prettier-ignore"], location: "anywhere" }],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { ignoreRestSiblings: true, varsIgnorePattern: "^_+$" },
      ],
    },
  },
  {
    // In the rooms above, where it takes minutes, tests/circles.test.ts alone sees to it, types
    // included.
    files: ["{core,devices,workers}/**/*.ts"],
    rules: { "import/no-cycle": ["error", { ignoreExternal: true }] },
  },
  {
    files: ["core/**/*.ts"],
    ignores: ["core/**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              regex: "^(react|react-dom|next|drizzle-orm|node:.*)(/.*)?$",
              message: "core/ knows no framework and does no I/O.",
            },
          ],
        },
      ],
      "no-restricted-globals": ["error", "window", "document", "fetch", "process"],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random" },
        { object: "Date", property: "now" },
      ],
    },
  },
  // A test may reach into any room: it stands beside the code and drives it through whatever it
  // needs.
  { files: ["**/*.test.{ts,tsx}"], rules: { "boundaries/dependencies": "off" } },
  {
    files: ["**/*.{test,spec}.{ts,tsx}"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector:
            "CallExpression[callee.property.name=/^(toMatchObject|toEqual|toStrictEqual)$/] :matches(Property, ArrayExpression) > Literal[regex]",
          message:
            "A regular expression in here passes against any string: use expect.stringMatching(...).",
        },
      ],
    },
  },
  prettier,
];

export default config;
