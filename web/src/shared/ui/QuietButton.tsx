import { ButtonBase } from "@mui/material";

interface Props {
  onClick: () => void;
  /** What it is called aloud; holds the words that it shows. */
  name: string;
  expanded?: boolean;
  children: string;
}

/** An underlined word that does something, large enough for a thumb. */
export function QuietButton({ onClick, name, expanded, children }: Props) {
  return (
    <ButtonBase
      onClick={onClick}
      aria-label={name}
      aria-expanded={expanded}
      sx={{
        minHeight: 44,
        px: 1,
        fontSize: "0.9375rem",
        fontWeight: 600,
        textDecoration: "underline",
        textUnderlineOffset: 3,
      }}
    >
      {children}
    </ButtonBase>
  );
}
