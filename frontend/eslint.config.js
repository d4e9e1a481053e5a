import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import globals from "globals";
import ts from "typescript-eslint";

const screens = ["today", "take", "signin"];

export default ts.config(
  { ignores: ["src/api/gen/**"] },
  js.configs.recommended,
  ...ts.configs.recommended,
  { languageOptions: { globals: globals.browser } },
  { plugins: { "react-hooks": hooks }, rules: hooks.configs.recommended.rules },
  {
    rules: {
      "no-nested-ternary": "error",
      "no-restricted-syntax": ["error", { selector: "JSXAttribute[name.name='style']", message: "styles stand with their component" }],
    },
  },
  // a screen never imports another screen
  ...screens.map((screen) => ({
    files: [`src/${screen}/**`],
    rules: {
      "no-restricted-imports": ["error", { patterns: screens.filter((other) => other !== screen).map((other) => `**/${other}/**`) }],
    },
  })),
);
