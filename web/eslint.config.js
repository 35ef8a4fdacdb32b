import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

/**
 * The rooms of the page, and what each may import from the others. What stands in `types`
 * gives its types alone.
 */
const rooms = {
  kit: [],
  words: [],
  server: ["kit", "words"],
  state: ["kit", "server", "words"],
  choosers: ["kit", "server", "state", "words"],
  ...Object.fromEntries(
    ["index", "rail", "capture", "bell", "builder", "settings", "week"].map((part) => [
      part,
      ["kit", "server", "state", "words", "choosers"],
    ]),
  ),
  ...Object.fromEntries(
    ["sheet", "slip", "review"].map((part) => [
      part,
      ["kit", "server", "state", "words", "choosers", "capture"],
    ]),
  ),
  shell: [
    ...["kit", "server", "state", "words", "choosers"],
    ...["index", "rail", "bell", "capture", "slip", "sheet"],
  ],
};
const types = { words: ["server"] };

const guarded = Object.entries(rooms).map(([room, allowed]) => {
  const others = Object.keys(rooms).filter((f) => f !== room && !allowed.includes(f));
  return {
    files: [`src/${room}/**`],
    rules: {
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: others.map((f) => ({
            group: [`@/${f}/*`, `**/../${f}/*`],
            message: `src/${room} imports nothing of src/${f}.`,
            allowTypeImports: types[room]?.includes(f) ?? false,
          })),
        },
      ],
    },
  };
});

export default ts.config(
  { ignores: ["dist/**", "src/server/schema.d.ts", "test-results/**"] },
  ...ts.configs.recommended,
  ...vue.configs["flat/recommended"],
  {
    files: ["**/*.vue"],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    rules: {
      // Prettier sets the lines; a component's file name is its name.
      "vue/max-attributes-per-line": "off",
      "vue/singleline-html-element-content-newline": "off",
      "vue/html-self-closing": "off",
      "vue/html-indent": "off",
      "vue/html-closing-bracket-newline": "off",
      "vue/multi-word-component-names": "off",
      "vue/no-v-html": "error",
      // What floats takes the keys: LayerMenu and LayerDialog see to that.
      "vue/no-restricted-syntax": [
        "error",
        {
          selector: "VElement[rawName=/^(v-menu|v-dialog|v-overlay|dialog)$/]",
          message: "Use LayerMenu or LayerDialog: what floats takes the keys.",
        },
      ],
      "@typescript-eslint/no-explicit-any": "error",
    },
  },
  {
    files: ["src/kit/LayerMenu.vue", "src/kit/LayerDialog.vue"],
    rules: { "vue/no-restricted-syntax": "off" },
  },
  ...guarded,
);
