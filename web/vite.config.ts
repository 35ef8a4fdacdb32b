import { fileURLToPath } from "node:url";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
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

/** Puts each file that gets smaller by it beside itself, compressed, for the server to hand out. */
function compressed(): Plugin {
  let folder = "";
  return {
    name: "compressed",
    apply: "build",
    configResolved: (config) => void (folder = join(config.root, config.build.outDir)),
    closeBundle() {
      for (const name of readdirSync(folder, { recursive: true, encoding: "utf8" })) {
        if (!/\.(js|css|svg|json|webmanifest|woff|txt)$/.test(name)) continue;
        const content = readFileSync(join(folder, name));
        for (const [ending, pack] of [
          [".br", brotliCompressSync],
          [".gz", gzipSync],
        ] as const) {
          const packed = pack(content);
          if (packed.length < content.length * 0.95)
            writeFileSync(join(folder, name + ending), packed);
        }
      }
    },
  };
}

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), scriptBudget(), compressed()],
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
