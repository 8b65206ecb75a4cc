import { Ink, line, smooth, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

/** A resting bud with its foot at 0, 0, pointing up. */
function Bud({ traits, length, fill }: { traits: Traits; length: number; fill: string }) {
  const half = length * 0.24;
  const isBlunt = traits.state("bud-tip") === "blunt";
  const body = isBlunt
    ? smooth([
        [-half * 0.7, 0],
        [-half * 1.15, -length * 0.4],
        [-half * 0.85, -length * 0.82],
        [0, -length],
        [half * 0.85, -length * 0.82],
        [half * 1.15, -length * 0.4],
        [half * 0.7, 0],
      ]) + "Z"
    : smooth([
        [-half * 0.7, 0],
        [-half * 1.1, -length * 0.34],
        [-half * 0.5, -length * 0.74],
        [0, -length],
        [half * 0.5, -length * 0.74],
        [half * 1.1, -length * 0.34],
        [half * 0.7, 0],
      ]) + "Z";
  const edges = traits.state("bud-scale-edges");
  const count = Math.round(traits.size("bud-scales") ?? (edges === "single" ? 1 : edges === "meeting" ? 2 : 6));
  let scales = "";
  if (edges === "meeting" || count === 2)
    scales = line([
      [0, -length * 0.96],
      [0, 0],
    ]);
  else if (edges === "single" || count === 1)
    scales = smooth([
      [half * 0.5, -length * 0.08],
      [half * 0.62, -length * 0.4],
      [half * 0.2, -length * 0.8],
    ]);
  else {
    const rows = Math.min(6, Math.max(2, Math.round(count / 2)));
    for (let r = 0; r < rows; r++) {
      const y = -length * (0.16 + (0.68 * r) / rows);
      const w = half * (1.05 - (0.62 * r) / rows);
      scales +=
        smooth([
          [-w, y + length * 0.07],
          [-w * 0.4, y - length * 0.05],
          [w * (r % 2 ? 0.3 : -0.2), y - length * 0.14],
        ]) +
        smooth([
          [w, y + length * 0.07],
          [w * 0.4, y - length * 0.03],
          [w * (r % 2 ? 0.3 : -0.2), y - length * 0.14],
        ]);
    }
  }
  const isHairy = traits.state("bud-hairs") === "hairy";
  const fuzz = isHairy
    ? Array.from({ length: 9 }, (_, i) => {
        const t = 0.12 + i * 0.095;
        const x = half * (1.1 - t * 0.75);
        return `M${x} ${-t * length}l${length * 0.09} ${-length * 0.06}M${-x} ${-t * length}l${-length * 0.09} ${-length * 0.06}`;
      }).join("")
    : "";
  return (
    <>
      <Ink d={body} fill={fill} width={1.4} />
      <Ink d={scales} width={0.9} />
      {isHairy && <Ink d={fuzz} width={0.7} />}
    </>
  );
}

function Scar({ kind, unit }: { kind?: string; unit: number }) {
  const d =
    kind === "broad"
      ? `M${-unit} ${-unit * 0.2}q${unit * 0.1} ${unit * 1.1} ${unit} ${unit * 1.1}q${unit * 0.9} 0 ${unit} ${-unit * 1.1}q${-unit} ${unit * 0.9} ${-2 * unit} 0Z`
      : kind === "round"
        ? `M${-unit * 0.55} ${unit * 0.4}a${unit * 0.55} ${unit * 0.5} 0 1 0 ${unit * 1.1} 0a${unit * 0.55} ${unit * 0.5} 0 1 0 ${-unit * 1.1} 0Z`
        : `M${-unit} ${-unit * 0.1}l${unit} ${unit * 0.75}l${unit} ${-unit * 0.75}l${-unit * 0.12} ${-unit * 0.22}l${-unit * 0.88} ${unit * 0.62}l${-unit * 0.88} ${-unit * 0.62}Z`;
  const dots = kind === "broad" ? [-0.55, 0, 0.55] : kind === "round" ? [-0.2, 0.2] : [-0.5, 0, 0.5];
  return (
    <>
      <Ink d={d} fill={wash("pale")} width={0.9} />
      <Ink
        d={dots
          .map((x) => `M${x * unit} ${unit * (kind === "narrow" || !kind ? 0.32 - Math.abs(x) * 0.5 : 0.45)}h0.01`)
          .join("")}
        width={2}
      />
    </>
  );
}

/** A node of a twig close up, or its foot cut lengthwise. */
export function twigDetail(traits: Traits, part: "node" | "foot" | "tip"): Drawn {
  const whole = twig(traits);
  const bud = traits.size("bud-length") ?? 5;
  const box: Record<typeof part, Drawn["box"]> = {
    node: [-bud * 1.7, bud * 3.1, bud * 3.4, bud * 3.4],
    foot: [-bud * 0.9, bud * 6.45, bud * 1.8, bud * 1.9],
    tip: [-bud * 1.5, -bud * 1.2, bud * 3, bud * 3],
  };
  return { ...whole, box: box[part], clipped: true, toScale: false };
}

/** A winter twig with buds, scars and lenticels, and its pith cut lengthwise. */
export function twig(traits: Traits): Drawn {
  const bud = traits.size("bud-length") ?? 5;
  const thick = Math.max(2.4, bud * 0.55);
  const gap = bud * 2.5;
  const length = gap * 2.7;
  const colour = traits.state("twig-colour") ?? "brown";
  const isOpposite = traits.state("bud-arrangement") === "opposite";
  const away = traits.state("bud-attitude") === "away" ? 38 : 13;
  const wings = traits.state("twig-wings");
  const wing =
    wings === "winged" || wings === "ridged"
      ? Math.min(thick * 2.2, traits.size("wing-width") ?? (wings === "winged" ? 4 : 1.4))
      : 0;
  const thorn = traits.state("twig-thorns");
  const thornLength = Math.min(gap * 1.25, traits.size("thorn-length") ?? 14);
  const top = thick * 0.36;
  const halfAt = (y: number) => top + ((thick / 2 - top) * y) / length;
  const budFill = wash(colour === "green" ? "brown" : colour === "grey" ? "black" : "red-brown", "red-brown");
  const nodes = [0.8, 1.95].map((n) => n * gap);
  const sides = nodes.map((y, i) => ({ y, at: isOpposite ? [-1, 1] : [i % 2 ? 1 : -1] }));
  const lenticels = Array.from({ length: 11 }, (_, i): Point => [
    ((i * 37) % 10) / 10 - 0.5,
    length * (0.06 + i * 0.085),
  ]);
  const hairKind = traits.state("twig-hairs");
  const hairs =
    hairKind && hairKind !== "bald"
      ? Array.from({ length: 20 }, (_, i) => {
          const y = length * (0.03 + i * 0.047);
          const x = halfAt(y);
          const u = thick * (hairKind === "stiff-hairs" ? 0.26 : 0.4);
          return hairKind === "star-hairs"
            ? `M${x} ${y}l${u} ${-u * 0.5}M${x} ${y}l${u} ${u * 0.5}M${x} ${y}h${u * 1.1}M${-x} ${y}l${-u} ${-u * 0.5}M${-x} ${y}l${-u} ${u * 0.5}M${-x} ${y}h${-u * 1.1}`
            : `M${x} ${y}l${u} ${hairKind === "soft-hairs" ? u * 0.5 : -u * 0.1}M${-x} ${y}l${-u} ${hairKind === "soft-hairs" ? u * 0.5 : -u * 0.1}`;
        }).join("")
      : "";
  const pith = traits.state("pith");
  const foot = length + thick * 2.6;
  const chambers =
    pith === "chambered"
      ? Array.from({ length: 6 }, (_, i) => `M${-thick * 0.2} ${length + thick * (0.5 + i * 0.5)}h${thick * 0.4}`).join(
          "",
        )
      : "";
  const end = sides[0];
  const reach =
    Math.max(
      thick / 2 + wing,
      bud * Math.sin((away * Math.PI) / 180) + thick * 0.9,
      thorn === "thorns" ? thornLength * 0.86 : 0,
    ) +
    bud * 0.35;
  return {
    toScale: true,
    words: "winter twig",
    box: [-reach, -bud * 1.12, reach * 2, foot + bud * 1.2],
    node: (
      <>
        {wing > 0 && (
          <Ink
            d={[-1, 1]
              .map((s) =>
                line([
                  [s * halfAt(gap), gap * 0.7],
                  [s * (halfAt(gap) + wing), gap * 1.0],
                  [s * (thick / 2 + wing), length * 0.97],
                  [s * (thick / 2), length],
                ]),
              )
              .join("")}
            fill={wash("pale")}
            width={1}
          />
        )}
        <Ink
          d={`M${-top} 0L${-thick / 2} ${length}L${-thick / 2} ${foot}L${thick / 2} ${foot}L${thick / 2} ${length}L${top} 0Z`}
          fill={wash(colour)}
          width={1.4}
        />
        {/* cut lengthwise at the foot: wood and pith */}
        {pith && (
          <>
            <Ink
              d={`M${-thick / 2} ${length + thick * 0.2}L${thick / 2} ${length + thick * 0.2}L${thick / 2} ${foot}L${-thick / 2} ${foot}Z`}
              fill={wash("pale")}
              width={1}
            />
            <Ink
              d={`M${-thick * 0.2} ${length + thick * 0.2}V${foot}M${thick * 0.2} ${length + thick * 0.2}V${foot}`}
              width={0.9}
            />
            {pith === "solid" && (
              <Ink
                d={Array.from(
                  { length: 12 },
                  (_, i) => `M${thick * (((i * 7) % 5) / 5 - 0.4) * 0.4} ${length + thick * (0.4 + i * 0.24)}h.01`,
                ).join("")}
                width={1.7}
              />
            )}
            {pith === "hollow" && (
              <Ink
                d={`M${-thick * 0.17} ${length + thick * 0.25}H${thick * 0.17}V${foot}H${-thick * 0.17}Z`}
                fill="var(--plate-ground)"
                width={0.4}
              />
            )}
            <Ink d={chambers} width={1} />
          </>
        )}
        <Ink d={lenticels.map(([x, y]) => `M${x * thick * 0.6} ${y}h${thick * 0.1}`).join("")} width={1.4} faint />
        <Ink d={hairs} width={0.8} />
        {traits.has("twig-sap") && (
          <Ink
            d={`M0 ${foot}q${-thick * 0.5} ${thick * 0.7} 0 ${thick}q${thick * 0.5} ${-thick * 0.3} 0 ${-thick}Z`}
            fill={traits.state("twig-sap") === "milky" ? wash("white") : "none"}
            width={1.2}
          />
        )}
        {/* the bud at the end, and those at the nodes */}
        {thorn === "thorns" ? (
          <Ink d={`M${-top} 0L0 ${-bud}L${top} 0Z`} fill={wash(colour)} />
        ) : (
          <Bud traits={traits} length={bud * 1.05} fill={budFill} />
        )}
        {isOpposite &&
          end &&
          thorn !== "thorns" &&
          [-1, 1].map((s) => (
            <g key={`e${s}`} transform={`translate(${s * top} ${bud * 0.1}) rotate(${s * (away + 6)}) scale(0.6)`}>
              <Bud traits={traits} length={bud} fill={budFill} />
            </g>
          ))}
        {sides.map(({ y, at }) =>
          at.map((s) => (
            <g key={`${y}${s}`}>
              {thorn === "thorns" && (
                <Ink
                  d={line(
                    [
                      [s * halfAt(y) * 0.9, y + thick * 0.3],
                      [s * (halfAt(y) + thornLength * 0.8), y - thornLength * 0.3],
                      [s * halfAt(y) * 0.9, y - thick * 0.3],
                    ],
                    true,
                  )}
                  fill={wash(colour)}
                />
              )}
              {thorn === "cushions" && (
                <Ink
                  d={`M${s * halfAt(y)} ${y + thick * 0.25}q${s * thick * 0.9} ${-thick * 0.1} ${s * thick * 0.1} ${-thick * 0.9}Z`}
                  fill={wash("pale")}
                />
              )}
              <g transform={`translate(${s * halfAt(y)} ${y}) rotate(${s * away})`}>
                <Bud traits={traits} length={bud * 0.92} fill={budFill} />
              </g>
              <g transform={`translate(${s * halfAt(y) * 0.62} ${y + thick * 0.34})`}>
                <Scar kind={traits.state("leaf-scars")} unit={thick * 0.3} />
              </g>
            </g>
          )),
        )}
      </>
    ),
  };
}
