import type { Plugin } from "vite";

// The letters of every page: fetched with its first line, so that nothing is set twice.
const first = /(literata-latin-wght-(normal|italic)|source-sans-3-latin-wght-normal)-[^/]+\.woff2$/;

/** Has the browser fetch the text fonts before it comes to the styles that name them. */
export function fonts(): Plugin {
  return {
    name: "fonts",
    transformIndexHtml: {
      order: "post",
      handler: (_, { bundle }) =>
        Object.keys(bundle ?? {})
          .filter((file) => first.test(file))
          .map((file) => ({
            tag: "link",
            injectTo: "head" as const,
            attrs: { rel: "preload", as: "font", type: "font/woff2", crossorigin: "", href: `/${file}` },
          })),
    },
  };
}
