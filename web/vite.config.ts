import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { fonts } from "./fonts.ts";
import { signs } from "./signs.ts";

export default defineConfig({
  plugins: [react(), signs(), fonts()],
  build: { outDir: "../artifacts/web", emptyOutDir: true, sourcemap: false },
  worker: { format: "es" },
  // For working on the pages: ./garten demo serves the API and the core beside it.
  server: { proxy: { "/api": "http://127.0.0.1:5080", "/_framework": "http://127.0.0.1:5080" } },
});
