import "@fontsource-variable/literata/opsz.css";
import "@fontsource-variable/literata/opsz-italic.css";
import "@fontsource-variable/source-sans-3/wght.css";
import "@fontsource-variable/source-sans-3/wght-italic.css";
import "../theme/signs.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { warmUp } from "../core/coreClient";
import { queryClient } from "../offline/queries";
import { LookProvider } from "../theme/LookChoice";
import { fetchPages, router } from "./router";

warmUp();
// The first page goes before: browsers that can't say when they are idle are given a moment.
const SOON_MS = 2_000;
if ("requestIdleCallback" in window) requestIdleCallback(fetchPages, { timeout: 10 * SOON_MS });
else setTimeout(fetchPages, SOON_MS);
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <LookProvider>
        <QueryClientProvider client={queryClient}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </LookProvider>
    </StrictMode>,
  );
}
