import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";
import vue from "@vitejs/plugin-vue";
import { defineConfig, type Plugin } from "vite";
import vuetify from "vite-plugin-vuetify";

const server = "http://127.0.0.1:7420";

/** The most script, gzipped, that may load before the first view. */
const budget = 350 * 1000;

/** Prints the script that loads before the first view, and fails over the budget. */
function scriptBudget(): Plugin {
  return {
    name: "script-budget",
    generateBundle(_, bundle) {
      const first = new Set<string>();
      const add = (name: string) => {
        const chunk = bundle[name];
        if (first.has(name) || chunk?.type !== "chunk") return;
        first.add(name);
        chunk.imports.forEach(add);
      };
      for (const chunk of Object.values(bundle)) {
        if (chunk.type === "chunk" && chunk.isEntry) add(chunk.fileName);
      }
      let total = 0;
      for (const name of first) {
        const chunk = bundle[name];
        if (chunk?.type === "chunk") total += gzipSync(chunk.code).length;
      }
      this.info(
        `script before the first view: ${(total / 1000).toFixed(1)} kB gzip of ${budget / 1000} kB`,
      );
      if (total > budget) this.error("more script than the first view may cost");
    },
  };
}

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), scriptBudget()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: {
    outDir: "dist/page",
    emptyOutDir: true,
    // Every file is checked against the Content-Security-Policy: no data: scripts or styles.
    assetsInlineLimit: 0,
    reportCompressedSize: false,
    chunkSizeWarningLimit: 1200,
  },
  server: {
    proxy: { "/api": { target: server, changeOrigin: true, headers: { Origin: server } } },
  },
});
