import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import { defineConfig } from "eslint/config";
import tseslint from "typescript-eslint";

const ROOMS = [
  ...["compare", "importing", "newplan", "parts", "plans", "requirements", "rulebook"],
  ...["settings", "ui", "workbench"],
];

/** What a room may use besides `api` and itself: pages use rooms, and no page another one. */
function oneWay(room, others) {
  const not = ROOMS.filter((other) => other !== room && !others.includes(other));
  return [
    {
      files: [`src/${room}/**`],
      rules: {
        "no-restricted-imports": ["error", { patterns: not.map((other) => `**/../${other}/**`) }],
      },
    },
  ];
}

export default defineConfig(
  { ignores: ["dist", "node_modules", "src/api/schema.ts", "tools"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  reactHooks.configs.flat.recommended,
  a11y.flatConfigs.strict,
  {
    languageOptions: {
      parserOptions: { projectService: { allowDefaultProject: ["eslint.config.js"] } },
    },
    rules: {
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      "@typescript-eslint/no-confusing-void-expression": ["error", { ignoreArrowShorthand: true }],
      // A dialog begins in its first field, and what scrolls can be reached by key (axe asks for it).
      "jsx-a11y/no-autofocus": "off",
      "jsx-a11y/no-noninteractive-tabindex": "off",
    },
  },
  { files: ["eslint.config.js"], ...tseslint.configs.disableTypeChecked },
  ...oneWay("ui", []),
  ...["importing", "requirements"].flatMap((room) => oneWay(room, ["ui"])),
  ...["compare", "newplan", "parts", "plans", "rulebook", "settings", "workbench"].flatMap((room) =>
    oneWay(room, ["ui", "importing", "requirements"]),
  ),
);
