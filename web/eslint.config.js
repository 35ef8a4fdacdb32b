import vue from "eslint-plugin-vue";
import ts from "typescript-eslint";

/** What each folder of src may import from the others: nothing above it. */
const below = {
  server: [],
  api: ["live"], // the window's name, which every request carries
  live: ["api", "server"],
  words: ["api"],
  builder: ["api", "server", "words", "components"],
  settings: ["api", "server", "words", "composables"],
  composables: ["api", "live", "server", "words", "settings"],
  components: ["api", "live", "server", "words", "builder", "settings", "composables"],
  pages: ["api", "live", "server", "words", "builder", "settings", "composables", "components"],
};
const layers = Object.entries(below).map(([folder, allowed]) => {
  const others = Object.keys(below).filter((f) => f !== folder && !allowed.includes(f));
  return {
    files: [`src/${folder}/**`],
    rules: {
      "no-restricted-imports": [
        "error",
        ...(others.length
          ? [
              {
                patterns: [
                  {
                    group: others.flatMap((f) => [`@/${f}/*`, `**/../${f}/*`]),
                    message: `src/${folder} imports none of these: ${others.join(", ")}.`,
                  },
                ],
              },
            ]
          : []),
      ],
    },
  };
});

export default ts.config(
  { ignores: ["dist/**", "src/api/schema.d.ts", "test-results/**"] },
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
    files: ["src/components/LayerMenu.vue", "src/components/LayerDialog.vue"],
    rules: { "vue/no-restricted-syntax": "off" },
  },
  ...layers,
);
