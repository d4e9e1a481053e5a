import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";

import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** A packed copy beside each script and style: a third of the bytes for a phone in the room. */
function packed(): Plugin {
  let assets = "";
  return {
    name: "packed",
    apply: "build",
    configResolved: ({ root, build }) => {
      assets = join(root, build.outDir, build.assetsDir);
    },
    closeBundle: () => {
      for (const name of readdirSync(assets).filter((one) => /\.(js|css)$/.test(one)))
        writeFileSync(join(assets, `${name}.gz`), gzipSync(readFileSync(join(assets, name)), { level: 9 }));
    },
  };
}

export default defineConfig({
  plugins: [react(), packed()],
  build: { sourcemap: false, assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:8760" } },
});
