import { fileURLToPath } from "node:url";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  build: {
    outDir: "../dialback/web/static",
    emptyOutDir: true,
    // The content security policy allows no data: scripts and no inline ones.
    assetsInlineLimit: 0,
    // The service worker keeps all of these for when there is no connection.
    manifest: "assets.json",
    modulePreload: { polyfill: false },
  },
  test: { include: ["tests/**/*.test.ts"] },
  server: { proxy: { "/api": "http://127.0.0.1:8765" } },
});
