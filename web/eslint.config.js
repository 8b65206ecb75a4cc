import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import globals from "globals";
import ts from "typescript-eslint";
import core from "./eslint.core.js";
import rooms from "./eslint.rooms.js";

export default ts.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  js.configs.recommended,
  ts.configs.strict,
  {
    files: ["src/**/*.{ts,tsx}"],
    languageOptions: { globals: globals.browser },
    plugins: { "react-hooks": hooks, rooms },
    rules: {
      ...hooks.configs.recommended.rules,
      "rooms/no-arrow-up": "error",
      "@typescript-eslint/no-invalid-void-type": "off",
    },
  },
  {
    files: ["src/{app,features,plant-in-hand,shared,offline}/**/*.{ts,tsx}"],
    plugins: { core },
    rules: { "core/no-rules": "error" },
  },
  {
    files: ["*.{js,mjs}"],
    languageOptions: { globals: globals.node },
  },
);
