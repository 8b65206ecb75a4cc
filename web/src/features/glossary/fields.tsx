import { Box, Button, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import type { FormEvent, ReactNode } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";

interface FormProps {
  /** What is wrong; empty where nothing is. */
  problem: string;
  button?: string;
  onSubmit: () => Promise<void>;
  children: ReactNode;
}

/** The frame of all forms of this page: fields below one another, what is wrong, and the button. */
export function DefineForm({ problem, button = "Define it", onSubmit, children }: FormProps) {
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onSubmit();
  };
  return (
    <Box component="form" noValidate onSubmit={submit} sx={{ display: "grid", gap: 2, maxWidth: 620 }}>
      {children}
      {problem && (
        <Typography role="alert" color="error">
          ✕ {problem}
        </Typography>
      )}
      <Button type="submit" variant="contained" sx={{ justifySelf: "start", minHeight: 52 }}>
        {button}
      </Button>
    </Box>
  );
}

/** The fixed words of the job as options. */
export const entries = <T extends string>(of: Record<T, string>) => Object.entries(of) as [T, string][];

interface Looked {
  tool: Schemas["Tool"];
  handling: Schemas["Handling"];
}

/** With what it is seen, and what is done to the plant. */
export function HowSeen({ of, onChange }: { of: Looked; onChange: (part: Partial<Looked>) => void }) {
  return (
    <>
      <Choice
        label="What is needed to see it"
        value={of.tool}
        options={entries(words.tools)}
        onChange={(tool) => onChange({ tool })}
      />
      <Choice
        label="What is done to the plant"
        value={of.handling}
        options={entries(words.handlingOfLook)}
        onChange={(handling) => onChange({ handling })}
      />
    </>
  );
}

/** Words between commas. */
export const list = (text: string) => [
  ...new Set(
    text
      .split(",")
      .map((it) => it.trim())
      .filter(Boolean),
  ),
];

/** An id made of a name: small letters, digits and single hyphens. */
export const idOf = (name: string) =>
  name
    .toLowerCase()
    .normalize("NFD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "");

interface FieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  help?: string;
  lines?: number;
}

export function Field({ label, value, onChange, help, lines }: FieldProps) {
  return (
    <TextField
      label={label}
      value={value}
      multiline={lines !== undefined}
      minRows={lines}
      helperText={help}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  help?: string;
}

export function Choice<T extends string>({ label, value, options, onChange, help }: ChoiceProps<T>) {
  return (
    <TextField
      select
      label={label}
      value={value}
      helperText={help}
      onChange={(event) => onChange(event.target.value as T)}
    >
      {options.map(([id, text]) => (
        <MenuItem key={id} value={id}>
          {text}
        </MenuItem>
      ))}
    </TextField>
  );
}
