// Lints the scripts that pages load: plain scripts, no modules, that share window.page and window.live.
import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["web/shell/static/vendor/**", "web/shell/static/dist/**", "node_modules/**", "docs/**"] },
  js.configs.recommended,
  {
    files: ["web/**/*.js"],
    languageOptions: { sourceType: "script", ecmaVersion: 2022, globals: { ...globals.browser, Alpine: "readonly" } },
    rules: {
      eqeqeq: "error",
      "no-var": "error",
      "prefer-const": "error",
      "no-shadow": "error",
      "max-len": ["error", { code: 120, ignoreUrls: true }],
      complexity: ["error", 24],
    },
  },
];
