import { useState } from "react";
import { later } from "../ui/later";
import { QuietButton } from "../ui/QuietButton";

const EraseDialog = later(async () => (await import("./EraseDialog")).EraseDialog, true);

export interface Erasing {
  subjectId: string;
  /** What it is, as it stands on the button: this plant, this name. */
  what: string;
  /** Whose, where several stand below each other. */
  of?: string;
  /** What goes with it, in a sentence. */
  goes: string;
  onErased?: () => void;
}

/** Erases something on request, for good, once the word has been typed. */
export function Erase(props: Erasing) {
  const [open, setOpen] = useState(false);
  const { what, of } = props;
  return (
    <>
      <QuietButton name={`Erase ${what} on request …${of ? `: ${of}` : ""}`} onClick={() => setOpen(true)}>
        {`Erase ${what} on request …`}
      </QuietButton>
      {open && <EraseDialog {...props} onClose={() => setOpen(false)} />}
    </>
  );
}
