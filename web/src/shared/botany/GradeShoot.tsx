import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import words from "../../api/words";

const grades = Object.keys(words.grades) as Schemas["Grade"][];

// A name grows as a plant does: seed, seedling, leaf, flower, fruit. Each drawn from the ground at y = 34 in a field 44 wide.
const drawings: Record<Schemas["Grade"], string> = {
  tentative: "M15 32q7 -9 14 0q-7 6 -14 0M19 31q3 -3 6 0",
  reasoned: "M22 34V20M22 22q-9 0 -10 -8q9 0 10 8q1 -8 10 -8q-1 8 -10 8",
  corroborated: "M22 34V10M22 26q-10 -1 -12 -9q10 0 12 9M22 20q10 -1 12 -9q-10 0 -12 9M22 12q-3 -4 0 -8q3 4 0 8",
  confirmed:
    "M22 34V16M22 28q-9 -1 -11 -7q9 0 11 7M22 16q-9 -1 -8 -8q5 0 8 8q-2 -9 0 -13q3 4 0 13q3 -8 8 -8q1 7 -8 8M22 24q8 -1 10 -6q-9 0 -10 6",
  verified:
    "M22 34V14M22 28q-9 -1 -11 -7q9 0 11 7M15 9a7 7 0 1 0 14 0a7 7 0 1 0 -14 0M19 3l3 -3l3 3M22 24q8 -1 10 -6q-9 0 -10 6",
};

/** How well a name stands, as a shoot that grows from seed to fruit; what isn't reached yet is dotted. */
export function GradeShoot({ grade }: { grade: Schemas["Grade"] }) {
  const at = grades.indexOf(grade);
  return (
    <Box
      component="ol"
      aria-label={`Level of evidence: ${words.grades[grade]}`}
      sx={{
        listStyle: "none",
        p: 0,
        m: 0,
        display: "grid",
        gridTemplateColumns: "repeat(5, minmax(0, 1fr))",
        maxWidth: 620,
      }}
    >
      {grades.map((it, i) => (
        <Box
          component="li"
          key={it}
          aria-current={i === at ? "step" : undefined}
          sx={{ textAlign: "center", color: i <= at ? "primary.main" : "text.secondary" }}
        >
          <Box
            component="svg"
            viewBox="0 0 44 36"
            aria-hidden="true"
            sx={{ width: { xs: 40, sm: 56 }, display: "block", mx: "auto", overflow: "visible" }}
          >
            <path
              d={drawings[it]}
              fill={i <= at ? "currentColor" : "none"}
              fillOpacity={i === at ? 0.28 : 0.12}
              stroke="currentColor"
              strokeWidth={i === at ? 2 : 1.2}
              strokeDasharray={i <= at ? undefined : "2 2.5"}
              strokeLinejoin="round"
            />
          </Box>
          <Box
            aria-hidden="true"
            sx={{
              borderTop: i <= at ? 3 : 1,
              borderTopStyle: i <= at ? "solid" : "dashed",
              borderColor: i <= at ? "primary.main" : "text.secondary",
            }}
          />
          <Typography
            component="span"
            sx={{
              fontSize: { xs: "0.75rem", sm: "0.875rem" },
              fontWeight: i === at ? 700 : 400,
              textDecoration: i === at ? "underline" : "none",
              textUnderlineOffset: 4,
              overflowWrap: "anywhere",
            }}
          >
            {words.grades[it]}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
