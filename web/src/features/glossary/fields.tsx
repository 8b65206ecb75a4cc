import { MenuItem, TextField } from "@mui/material";

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
