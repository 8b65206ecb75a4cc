import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { core } from "./core.ts";
import { fonts } from "./fonts.ts";
import { signs } from "./signs.ts";

// The runtime of the core is the largest, with 3 MB.
const LARGEST_FILE = 8_000_000;

export default defineConfig({
  plugins: [
    react(),
    signs(),
    fonts(),
    core(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/offline",
      filename: "serviceWorker.ts",
      injectRegister: false,
      manifest: {
        id: "/",
        name: "Garten",
        short_name: "Garten",
        description: "Identify native plants with keys and characters, follow them through the year, keep the records.",
        start_url: "/",
        display: "standalone",
        background_color: "#f6f1e4",
        theme_color: "#17301f",
        categories: ["education", "productivity"],
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
          { src: "/icon-cut.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
        ],
        shortcuts: [{ name: "A plant in hand", url: "/bench" }],
      },
      injectManifest: {
        globPatterns: ["**/*.{js,css,html,svg,png,woff2,wasm,dat,webmanifest}"],
        // Letters that no page uses.
        globIgnores: ["**/*-{cyrillic,cyrillic-ext,greek,greek-ext,vietnamese}-*.woff2"],
        maximumFileSizeToCacheInBytes: LARGEST_FILE,
        // Files with a fingerprint in their name never change.
        dontCacheBustURLsMatching: /^(assets\/|_framework\/(?!dotnet\.js$))/,
      },
    }),
  ],
  build: { outDir: "../artifacts/web", emptyOutDir: true, sourcemap: false },
  worker: { format: "es" },
  // For working on the pages: ./garten demo serves the API and the core beside it.
  server: { proxy: { "/api": "http://127.0.0.1:5080", "/_framework": "http://127.0.0.1:5080" } },
});
