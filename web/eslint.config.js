import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import globals from "globals";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["src/api/generated", "node_modules"] },
  js.configs.recommended,
  ...ts.configs.recommended,
  hooks.configs.flat["recommended-latest"] ?? hooks.configs["recommended-latest"],
  { languageOptions: { globals: globals.browser } },
);
