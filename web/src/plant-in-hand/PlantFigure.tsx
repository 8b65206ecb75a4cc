import words from "../api/words";
import { Box, ButtonBase, Typography } from "@mui/material";
import type { Schemas } from "../api/client";
import { visuallyHidden } from "../shared/ui/visuallyHidden";

type Organ = Schemas["Organ"];

/** What the figure says of an organ. */
export interface OrganState {
  organ: Organ;
  seen: number;
  conflict: boolean;
  /** The couplet on the table asks for it. */
  asked: boolean;
  /** Nothing of it can be seen at this time of the year. */
  absent: boolean;
}

// Where each label stands in the figure, in percent of it, on the side that its leader line comes from.
const places: Record<Organ, { left?: number; right?: number; top: number }> = {
  habit: { left: 0, top: 0 },
  bud: { right: 0, top: 0 },
  twig: { right: 0, top: 17 },
  leaf: { left: 0, top: 17 },
  inflorescence: { right: 0, top: 34 },
  stem: { left: 0, top: 34 },
  flower: { right: 0, top: 51 },
  bark: { left: 0, top: 51 },
  fruit: { right: 0, top: 68 },
  underground: { left: 0, top: 68 },
  site: { left: 0, top: 85 },
};

interface Props {
  organs: OrganState[];
  chosen?: Organ;
  /** Only the plant and its organs, without what was seen of them. */
  isPlain?: boolean;
  onChoose: (organ: Organ) => void;
}

/** A drawn plant; its organs lead to their part of the evidence sheet and show what is seen, in conflict, asked for, not there now. */
export function PlantFigure({ organs, chosen, isPlain, onChoose }: Props) {
  const of = (organ: Organ) => organs.find((o) => o.organ === organ);
  const ink = (organ: Organ) => {
    const it = of(organ);
    if (chosen === organ) return "var(--ink-chosen)";
    if (it?.conflict) return "var(--ink-conflict)";
    if (it?.seen) return "var(--ink-support)";
    return it?.absent ? "var(--ink-absent)" : "var(--ink)";
  };
  const wash = (organ: Organ) => (of(organ)?.seen ? "var(--wash)" : "none");
  const dash = (organ: Organ) => (of(organ)?.absent ? "3 3" : undefined);
  const pen = (organ: Organ) => ({
    stroke: ink(organ),
    fill: wash(organ),
    strokeDasharray: dash(organ),
    strokeWidth: 1.6,
  });
  return (
    <Box
      component="nav"
      aria-label="Organs of the plant"
      sx={(theme) => ({
        position: "relative",
        height: 318,
        "--ink": theme.palette.text.primary,
        "--ink-support": theme.palette.signal.support,
        "--ink-conflict": theme.palette.signal.conflict,
        "--ink-absent": theme.palette.signal.absent,
        "--ink-chosen": theme.palette.primary.main,
        "--wash": theme.palette.signal.chosenWash,
      })}
    >
      <Box
        component="svg"
        viewBox="0 0 270 318"
        aria-hidden="true"
        sx={{
          position: "absolute",
          inset: 0,
          width: "100%",
          height: "100%",
          strokeLinecap: "round",
          strokeLinejoin: "round",
        }}
      >
        {/* ground and roots */}
        <path d="M60 268 q40 -7 78 -2 t86 2" {...pen("site")} fill="none" />
        <path d="M84 274 l6 5 M112 272 l4 6 M172 271 l4 6 M206 273 l5 5" {...pen("site")} fill="none" />
        <path
          d="M132 268 q-8 16 -26 22 M134 268 q0 18 -6 30 M138 268 q10 14 28 20 M136 270 q6 16 4 28"
          {...pen("underground")}
          fill="none"
        />
        {/* trunk with bark */}
        <path d="M124 267 q6 -48 3 -92 l14 0 q-3 46 4 92 z" {...pen("bark")} />
        <path
          d="M131 254 q2 -20 1 -34 M137 248 q-1 -22 0 -40 M133 210 q1 -12 0 -24"
          {...pen("bark")}
          fill="none"
          strokeWidth={1}
        />
        {/* crown */}
        <path
          d="M88 92 q-6 -36 26 -44 q20 -28 46 -6 q32 2 28 36 q10 26 -16 38 q-36 26 -70 4 q-26 -2 -14 -28 z"
          {...pen("habit")}
          fill="none"
          strokeDasharray="2 5"
        />
        {/* stem and twigs */}
        <path d="M134 176 q-2 -34 0 -62" {...pen("stem")} fill="none" strokeWidth={2.4} />
        <path d="M134 128 q14 -20 34 -54 l6 -18" {...pen("twig")} fill="none" strokeWidth={2.2} />
        <path d="M134 150 q14 -6 24 -8 M134 164 q14 8 22 24" {...pen("twig")} fill="none" />
        {/* bud */}
        <path d="M174 56 q-8 -14 2 -24 q10 8 4 24 z" {...pen("bud")} />
        <path d="M176 34 q-2 10 1 20" {...pen("bud")} fill="none" strokeWidth={1} />
        {/* leaf */}
        <path d="M134 140 q-10 -6 -22 -18" {...pen("leaf")} fill="none" />
        <path d="M112 122 q-26 4 -36 -18 q-4 -12 -2 -24 q20 0 32 14 q10 12 6 28 z" {...pen("leaf")} />
        <path
          d="M112 122 q-18 -20 -37 -40 M100 108 q-10 0 -18 -4 M96 102 q0 -8 -3 -14"
          {...pen("leaf")}
          fill="none"
          strokeWidth={1}
        />
        {/* inflorescence and flower */}
        <path d="M158 142 q6 -4 10 -14 M158 142 q8 0 15 -2" {...pen("inflorescence")} fill="none" />
        <circle cx="169" cy="125" r="3.5" {...pen("inflorescence")} />
        <circle cx="176" cy="139" r="3.5" {...pen("inflorescence")} />
        <g transform="translate(170 164)">
          {[0, 72, 144, 216, 288].map((turn) => (
            <path key={turn} d="M0 0 q-5 -7 0 -11 q5 4 0 11" transform={`rotate(${turn})`} {...pen("flower")} />
          ))}
        </g>
        {/* fruit */}
        <path d="M156 188 q6 6 7 14" {...pen("fruit")} fill="none" />
        <circle cx="164" cy="210" r="8" {...pen("fruit")} />
        <path d="M162 217 l2 3 l2 -3" {...pen("fruit")} fill="none" strokeWidth={1} />
        {/* leader lines */}
        <g stroke="var(--ink-absent)" strokeWidth={0.8} fill="none">
          <path d="M84 34 L98 62 M66 80 L78 92 M64 130 L128 150 M56 184 L126 214 M84 238 L112 284 M46 286 L70 268" />
          <path d="M206 24 L182 42 M206 76 L164 82 M186 128 L180 136 M202 182 L182 170 M210 236 L174 214" />
        </g>
      </Box>
      {organs.map((it) => (
        <ButtonBase
          key={it.organ}
          onClick={() => onChoose(it.organ)}
          aria-current={chosen === it.organ ? "true" : undefined}
          sx={{
            position: "absolute",
            ...(places[it.organ].left === undefined ? { right: 0 } : { left: 0 }),
            top: `${places[it.organ].top}%`,
            minHeight: 44,
            minWidth: 62,
            px: 0.5,
            border: 1,
            borderColor: chosen === it.organ ? "primary.main" : it.asked ? "signal.open" : "rule",
            borderStyle: it.absent ? "dashed" : "solid",
            borderWidth: chosen === it.organ || it.asked ? 2 : 1,
            bgcolor: chosen === it.organ ? "signal.chosenWash" : it.asked ? "signal.openWash" : "background.paper",
            display: "flex",
            flexDirection: "column",
            alignItems: "flex-start",
          }}
        >
          <Typography component="span" sx={{ fontSize: "0.875rem", fontWeight: 600, lineHeight: 1.2 }}>
            {words.organs[it.organ]}
          </Typography>
          {!isPlain && <OrganMark state={it} />}
        </ButtonBase>
      ))}
    </Box>
  );
}

function OrganMark({ state }: { state: OrganState }) {
  const said = state.conflict
    ? { glyph: "✕", words: "in conflict", color: "signal.conflict" }
    : state.seen
      ? { glyph: "●", words: `${state.seen} seen`, color: "signal.support" }
      : state.absent
        ? { glyph: "◌", words: "not now", color: "signal.absent" }
        : state.asked
          ? { glyph: "?", words: "asked for", color: "signal.open" }
          : { glyph: "○", words: "open", color: "text.secondary" };
  return (
    <Typography component="span" sx={{ fontSize: "0.8rem", lineHeight: 1.2, color: said.color, whiteSpace: "nowrap" }}>
      {said.glyph} {said.words}
      {state.asked && state.seen > 0 && (
        <Box component="span" sx={visuallyHidden}>
          , asked for by the couplet
        </Box>
      )}
    </Typography>
  );
}
