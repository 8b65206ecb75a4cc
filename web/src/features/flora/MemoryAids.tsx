import {} from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useEffect, useState } from "react";

import { Part } from "../../shared/ui/Page";

import { keep, kept } from "../../offline/store";

/** One's own words to remember it by, kept on this device. */
export function MemoryAids({ flora, taxon }: { flora: string; taxon: string }) {
  const name = `aid:${flora}:${taxon}`;
  const [text, setText] = useState<string>();
  useEffect(() => {
    let current = true;
    void kept<string>(name).then((found) => current && setText(found ?? ""));
    return () => {
      current = false;
    };
  }, [name]);
  if (text === undefined) return null;
  return (
    <Part id="aids" title="Your own memory aids">
      <TextField
        multiline
        minRows={2}
        label="How do you remember it?"
        helperText="Kept on this device only."
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          void keep(name, event.target.value);
        }}
      />
    </Part>
  );
}
