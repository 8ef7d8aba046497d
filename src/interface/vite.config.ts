import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { cpSync, mkdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { defineConfig, type Plugin } from "vite";

const here = dirname(fileURLToPath(import.meta.url));
const out = join(here, "../Zendle.Server/wwwroot");

/** Ships what pdf.js fetches while it shows a file: character maps, the standard fonts, decoders, colour profiles. */
const pdfParts: Plugin = {
  name: "pdf-parts",
  closeBundle() {
    for (const part of ["cmaps", "standard_fonts", "wasm", "iccs"]) {
      mkdirSync(join(out, "pdf"), { recursive: true });
      cpSync(join(here, "node_modules/pdfjs-dist", part), join(out, "pdf", part), { recursive: true });
    }
  },
};

export default defineConfig({
  plugins: [react(), tailwindcss(), pdfParts],
  html: { cspNonce: "__NONCE__" },
  build: {
    outDir: "../Zendle.Server/wwwroot",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { "/api": "http://127.0.0.1:5170", "/health": "http://127.0.0.1:5170" } },
});
