import { Box, ButtonBase } from "@mui/material";

interface Props<T extends string> {
  label: string;
  choices: readonly (readonly [T, string])[];
  value: T | undefined;
  onChoose: (value: T | undefined) => void;
  /** Whether a second tap takes the choice back. */
  canBeNone?: boolean;
}

/** A few choices side by side, each large enough for a thumb. */
export function Choice<T extends string>({ label, choices, value, onChoose, canBeNone }: Props<T>) {
  return (
    <Box role="group" aria-label={label} sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
      {choices.map(([id, name]) => {
        const on = value === id;
        return (
          <ButtonBase
            key={id}
            aria-pressed={on}
            aria-label={`${label}: ${name}`}
            onClick={() => onChoose(on && canBeNone ? undefined : id)}
            sx={{
              border: on ? 2 : 1,
              borderColor: on ? "primary.main" : "text.secondary",
              bgcolor: on ? "signal.chosenWash" : "background.paper",
              minHeight: 44,
              px: 1.5,
              fontSize: "1rem",
              fontWeight: on ? 700 : 400,
            }}
          >
            {on && "✓ "}
            {name}
          </ButtonBase>
        );
      })}
    </Box>
  );
}
