import { useState } from "react";
import { later } from "./later";
import { QuietButton } from "./QuietButton";

const ExactDialog = later(async () => (await import("./ExactDialog")).ExactDialog, true);

/** An export with the exact places of sensitive taxa: a deliberate act of its own. */
export function ExactExport({ href, what }: { href: string; what: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <QuietButton name={`${what} with exact places`} onClick={() => setOpen(true)}>
        With exact places …
      </QuietButton>
      {open && <ExactDialog href={href} what={what} onClose={() => setOpen(false)} />}
    </>
  );
}
