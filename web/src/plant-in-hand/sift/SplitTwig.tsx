import { Box, ButtonBase } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Cell } from "../../plates/Cell";
import { plateSx } from "../../plates/plateSx";
import { stateFigure } from "../../plates/StateFigure";

const WIDTH = 320;
const FORK = 42;
const FIGURE = 46;
const WORDS = 30;
const THICKEST = 9;
// Letters that fit beneath all branches together.
const LETTERS = 50;

/** The split that a look makes, as a twig: each branch as thick as its outcome is likely, with what would be seen at its end. */
export function SplitTwig({
  look,
  character,
  onState,
}: {
  look: Schemas["TellingLook"];
  character: Schemas["Character"] | undefined;
  /** Records a state at once. */
  onState: (state: string) => void;
}) {
  const { branches } = look;
  const column = WIDTH / branches.length;
  const isMeasure = character !== undefined && character.states.length === 0;
  return (
    <Box sx={{ position: "relative", maxWidth: 380 }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${FORK + FIGURE + WORDS}`}
        aria-hidden="true"
        sx={{ ...plateSx, display: "block", width: "100%", height: "auto" }}
      >
        <path d={`M${WIDTH / 2} 0V8`} stroke="currentColor" strokeWidth={THICKEST} fill="none" />
        {branches.map((branch, i) => {
          const x = column * (i + 0.5);
          const part = character && branch.state ? stateFigure(character, branch.state) : undefined;
          const left = x - FIGURE / 2;
          return (
            <g key={branch.words}>
              <path
                d={`M${WIDTH / 2} 6C${WIDTH / 2} ${FORK * 0.7} ${x} ${FORK * 0.35} ${x} ${FORK}`}
                stroke="currentColor"
                strokeWidth={Math.max(1, THICKEST * branch.share)}
                strokeLinecap="round"
                fill="none"
              />
              {part ? (
                <Cell part={part} x={left} y={FORK} width={FIGURE} height={FIGURE} label={false} />
              ) : (
                isMeasure &&
                typeof branch.place === "number" && (
                  <Stretch x={x} of={Math.max(...look.split.map((it) => it.place)) + 1} at={branch.place} />
                )
              )}
              <text
                x={x}
                y={FORK + FIGURE + 11}
                fontSize={12.5}
                textAnchor="middle"
                fill="currentColor"
                fontFamily="inherit"
              >
                {shorten(branch.words, Math.floor(LETTERS / branches.length))}
              </text>
              <text
                x={x}
                y={FORK + FIGURE + 26}
                fontSize={12.5}
                fontWeight={700}
                textAnchor="middle"
                fill="currentColor"
                fontFamily="inherit"
              >
                {branch.shareInWords}
              </text>
            </g>
          );
        })}
      </Box>
      {/* What would be seen is tapped where it is drawn. */}
      <Box
        role="group"
        aria-label={`What is it like: ${character?.name ?? look.character}`}
        sx={{
          position: "absolute",
          inset: 0,
          display: "grid",
          gridTemplateColumns: `repeat(${branches.length}, minmax(0, 1fr))`,
        }}
      >
        {branches.map((branch) =>
          branch.state ? (
            <ButtonBase
              key={branch.words}
              onClick={() => onState(branch.state ?? "")}
              aria-label={`Record ${branch.words}`}
              sx={{ border: "2px solid transparent", "&:hover, &:focus-visible": { borderColor: "primary.main" } }}
            />
          ) : (
            <span key={branch.words} />
          ),
        )}
      </Box>
    </Box>
  );
}

/** Which stretch of a measure it is: smaller or larger of so many. */
function Stretch({ x, of, at }: { x: number; of: number; at: number }) {
  const y = FORK + FIGURE / 2;
  const half = FIGURE * 0.42;
  const step = (half * 2) / of;
  return (
    <g stroke="currentColor" fill="none">
      <path d={`M${x - half} ${y}h${half * 2}`} strokeWidth={1} />
      {Array.from({ length: of + 1 }, (_, i) => (
        <path key={i} d={`M${x - half + i * step} ${y - 3}v6`} strokeWidth={1} />
      ))}
      <path d={`M${x - half + at * step} ${y}h${step}`} strokeWidth={6} />
    </g>
  );
}

const shorten = (words: string, most: number) => (words.length > most ? `${words.slice(0, most - 1)}…` : words);
