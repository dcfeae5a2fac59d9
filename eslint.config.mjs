import { readFileSync } from "node:fs";
import js from "@eslint/js";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

/*
 * No function is longer than a screen, or branches more than twenty times. What was longer or more branched when these bounds came
 * stands in lint-bounds.json: a list that gets shorter, and to which nothing is added.
 */
const over = JSON.parse(readFileSync(new URL("lint-bounds.json", import.meta.url), "utf8"));
const lengthBound = ["error", { max: 65, skipBlankLines: true, skipComments: true }];

export default tseslint.config(
  { ignores: ["build/", ".react-router/", "node_modules/", "server/migrations/", "test-results/", "data/"] },
  js.configs.recommended,
  {
    files: ["**/*.ts", "**/*.tsx"],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true },
      ],
      // A phrase put into a template or a list by itself would read "[object Object]".
      "@typescript-eslint/no-base-to-string": "error",
      "@typescript-eslint/restrict-template-expressions": [
        "error",
        { allowNumber: true, allowBoolean: true, allowNullish: true, allowAny: true, allowRegExp: true },
      ],
      // React Router throws Responses from loaders and actions, by its own design.
      "@typescript-eslint/only-throw-error": "off",
    },
  },
  {
    files: ["app/**/*.tsx"],
    ...jsxA11y.flatConfigs.recommended,
    rules: {
      ...jsxA11y.flatConfigs.recommended.rules,
      // Dialogs put the cursor into their first field, through the component library.
      "jsx-a11y/no-autofocus": ["error", { ignoreNonDOM: true }],
      // What scrolls sideways can be reached and scrolled by keyboard.
      "jsx-a11y/no-noninteractive-tabindex": ["error", { roles: ["region", "group"], tags: [] }],
    },
  },
  {
    files: ["app/**/*.ts", "app/**/*.tsx"],
    ...reactHooks.configs.flat.recommended,
  },
  // A test reads from top to bottom, however long it is.
  {
    files: ["**/*.ts", "**/*.tsx"],
    ignores: ["**/*.test.ts", "**/*.test.tsx", "e2e/**"],
    rules: { "max-lines-per-function": lengthBound, complexity: ["error", 20] },
  },
  { files: over.long, rules: { "max-lines-per-function": "off" } },
  { files: over.branched, rules: { complexity: "off" } },
  // Playwright reads a fixture's needs from its first parameter, and takes an empty pattern for none.
  { files: ["e2e/**"], rules: { "no-empty-pattern": ["error", { allowObjectPatternsAsParameters: true }] } },
  { files: ["**/*.mjs", "**/*.cjs"], languageOptions: { globals: globals.node } },
);
