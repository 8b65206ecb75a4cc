import "@fontsource-variable/literata/wght.css";
import "@fontsource-variable/literata/wght-italic.css";
import "@fontsource-variable/source-sans-3/wght.css";
import "../theme/signs.css";
import { QueryClientProvider } from "@tanstack/react-query";
import { startTransition, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { whenStarted } from "../core/coreClient";
import { firstViewDrawn, hurry } from "../core/firstView";
import { onLost } from "../api/client";
import { today } from "../api/today";
import { placesServed, todayOf } from "../offline/documents";
import { florasServed } from "../shared/botany/queries";
import { queryClient } from "../offline/queries";
import { LookProvider } from "../theme/LookChoice";
import { fetchPages, router } from "./router";

// What the first page asks for is asked while its code is still being fetched.
void queryClient.prefetchQuery(placesServed);
void queryClient.prefetchQuery(florasServed);
if (location.pathname === "/") void queryClient.prefetchQuery(todayOf(today()));
// Without a server nobody answers in the core's place.
const quiet = onLost(() => {
  quiet();
  hurry();
  whenStarted().catch(() => undefined);
});
// The first view goes before; then the core starts, and the code of the other pages is fetched for when there is no signal.
const PAGES_AFTER_MS = 6_000;
addEventListener("load", () => {
  firstViewDrawn();
  whenStarted().catch(() => undefined);
  setTimeout(fetchPages, PAGES_AFTER_MS);
});
const root = document.getElementById("root");
if (root) {
  const page = createRoot(root);
  // In pieces: the browser can draw, and take a tap, between them.
  startTransition(() =>
    page.render(
      <StrictMode>
        <LookProvider>
          <QueryClientProvider client={queryClient}>
            <RouterProvider router={router} />
          </QueryClientProvider>
        </LookProvider>
      </StrictMode>,
    ),
  );
}
