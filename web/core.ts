import { cp, access } from "node:fs/promises";
import { resolve } from "node:path";
import type { Plugin } from "vite";

const built = "../artifacts/browser/wwwroot/_framework";

/** Puts the core, as it was built for the browser, beside the pages. */
export function core(): Plugin {
  let outDir = "";
  return {
    name: "core",
    apply: "build",
    configResolved(config) {
      outDir = resolve(config.root, config.build.outDir);
    },
    async writeBundle() {
      await access(built).catch(() => {
        throw new Error(
          `The core isn't built in ${built}: build with ./garten, or publish src/Garten.Browser there first.`,
        );
      });
      await cp(built, resolve(outDir, "_framework"), { recursive: true });
    },
  };
}
