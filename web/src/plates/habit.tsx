import { Ink, hand, line, smooth, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

// Where no height is known: a middling plant of its form, in millimetres.
const usual: Record<string, number> = {
  tree: 12_000,
  shrub: 2_500,
  dwarf: 350,
  climber: 1_500,
  herb: 450,
  grass: 400,
  fern: 600,
  aquatic: 300,
};

function crown(height: number, isShrub: boolean, hanging: boolean): { trunk: string; leaves: string } {
  const next = hand(isShrub ? 31 : 17);
  const foot = isShrub ? 0 : height * 0.26;
  const rx = height * (isShrub ? 0.42 : 0.34);
  const cy = -(foot + (height - foot) / 2);
  const ry = (height - foot) / 2;
  const bumps = 15;
  const rim: Point[] = Array.from({ length: bumps }, (_, i) => {
    const [x, y] = turn([0, -1], (360 * i) / bumps);
    const r = 0.9 + next() * 0.14;
    return [x * rx * r, cy + y * ry * (y > 0.4 ? 0.86 : r)];
  });
  let leaves = "";
  rim.forEach((point, i) => {
    const to = rim[(i + 1) % bumps] ?? point;
    const bulge = turn([(point[0] + to[0]) / 2, (point[1] + to[1]) / 2 - height * 0.03], 0);
    leaves += `${i === 0 ? `M${point[0]} ${point[1]}` : ""}Q${bulge[0] * 1.13} ${cy + (bulge[1] - cy) * 1.13} ${to[0]} ${to[1]}`;
  });
  leaves += "Z";
  const w = height * (isShrub ? 0.012 : 0.028);
  let trunk = isShrub
    ? [-0.16, -0.05, 0.07, 0.18]
        .map((k) =>
          smooth([
            [k * height * 0.3, 0],
            [k * height * 0.7, -height * 0.25],
            [k * height * 1.2, -height * 0.5],
          ]),
        )
        .join("")
    : `M${-w} 0Q${-w * 0.7} ${-height * 0.2} ${-w * 0.4} ${-height * 0.55}L${w * 0.4} ${-height * 0.55}Q${w * 0.7} ${-height * 0.2} ${w} 0Z`;
  if (!isShrub)
    trunk += [
      [-0.2, 0.42],
      [0.22, 0.46],
      [-0.14, 0.6],
      [0.16, 0.64],
    ]
      .map(([x = 0, y = 0]) =>
        smooth([
          [0, -height * (y - 0.12)],
          [x * height * 0.5, -height * (y - 0.03)],
          [x * height, -height * y],
        ]),
      )
      .join("");
  if (hanging)
    trunk += rim
      .filter((_, i) => i % 2 === 0)
      .map(([x, y]) =>
        y > cy - ry * 0.4
          ? smooth([
              [x * 0.75, y - height * 0.12],
              [x * 1.04, y],
              [x * 1.08, y + height * 0.12],
            ])
          : "",
      )
      .join("");
  return { trunk, leaves };
}

/** The whole plant, to scale. */
export function habit(traits: Traits): Drawn {
  const form = traits.state("growth-form") ?? "herb";
  const height =
    traits.size("height") ??
    (form === "fern" ? (traits.size("leaf-length") ?? usual.fern ?? 600) : (usual[form] ?? 450));
  const leafWash = wash(traits.state("leaf-colour"), "green");
  const isKnown = traits.size("height") !== undefined || (form === "fern" && traits.size("leaf-length") !== undefined);
  const base = { toScale: isKnown, words: `habit: ${form}` };
  const ground = (width: number) => (
    <Ink
      d={smooth([
        [-width, 0],
        [-width * 0.3, height * 0.006],
        [width * 0.4, -height * 0.004],
        [width, height * 0.004],
      ])}
      width={1}
      faint
    />
  );
  if (form === "shrub" && traits.state("stem-attitude") === "scrambling") {
    const h = height;
    const arches = [
      [-1.25, 0.7],
      [-0.7, 1],
      [0.35, 0.92],
      [0.95, 0.66],
      [1.35, 0.5],
    ] as const;
    return {
      ...base,
      box: [-h * 1.45, -h * 1.1, h * 2.9, h * 1.16],
      node: (
        <>
          {ground(h * 1.3)}
          {arches.map(([reach, top]) => {
            const at = (t: number): Point => [
              reach * h * t,
              -top * h * Math.sin(Math.PI * Math.min(0.92, t * 0.92)) - h * 0.02 * t,
            ];
            return (
              <g key={reach}>
                <Ink d={smooth([0, 0.2, 0.4, 0.6, 0.8, 1].map(at))} width={1.6} />
                {[0.25, 0.4, 0.55, 0.7, 0.85].map((t) => {
                  const [x, y] = at(t);
                  return (
                    <Ink
                      key={t}
                      d={[-50, 0, 50]
                        .map((a) => {
                          const e = turn([x, y - h * 0.13], a, [x, y]);
                          const l = turn([x, y - h * 0.07], a - 30, [x, y]);
                          const r = turn([x, y - h * 0.07], a + 30, [x, y]);
                          return smooth([[x, y], l, e, r, [x, y]]);
                        })
                        .join("")}
                      fill={leafWash}
                      width={0.9}
                    />
                  );
                })}
              </g>
            );
          })}
        </>
      ),
    };
  }
  if (form === "tree" || form === "shrub") {
    const { trunk, leaves } = crown(height, form === "shrub", traits.state("branch-attitude") === "hanging");
    const next = hand(5);
    const dabs = Array.from({ length: 26 }, () => {
      const [x, y] = turn([0, -Math.sqrt(next()) * height * 0.3], next() * 360);
      const cy = form === "shrub" ? -height * 0.52 : -height * 0.63;
      return `M${x - height * 0.02} ${cy + y * 1.1}q${height * 0.02} ${-height * 0.025} ${height * 0.04} 0`;
    }).join("");
    return {
      ...base,
      box: [-height * 0.55, -height * 1.05, height * 1.1, height * 1.1],
      node: (
        <>
          {ground(height * 0.5)}
          <Ink d={leaves} fill={leafWash} width={1.3} />
          <Ink d={dabs} width={0.8} faint />
          <Ink d={trunk} fill={form === "tree" ? wash("brown") : "none"} width={1.3} />
        </>
      ),
    };
  }
  if (form === "dwarf") {
    const rooting = traits.state("branch-rooting") === "rooting";
    const branches = [-0.9, -0.5, -0.15, 0.2, 0.55, 0.95];
    return {
      ...base,
      box: [-height * 1.25, -height * 1.12, height * 2.5, height * 1.3],
      node: (
        <>
          {ground(height * 1.2)}
          {branches.map((k, i) => {
            const tip: Point = [k * height * 1.15, -height * (1 - Math.abs(k) * 0.5)];
            const mid: Point = [k * height * 0.7, -height * 0.28];
            return (
              <g key={i}>
                <Ink d={smooth([[k * height * 0.1, 0], mid, tip])} width={1.4} />
                <Ink
                  d={[0.35, 0.5, 0.65, 0.8, 0.95]
                    .map((t) => {
                      const x = mid[0] + (tip[0] - mid[0]) * t;
                      const y = mid[1] + (tip[1] - mid[1]) * t;
                      return `M${x} ${y}l${-height * 0.09} ${-height * 0.05}M${x} ${y}l${height * 0.09} ${-height * 0.05}`;
                    })
                    .join("")}
                  width={2.2}
                  faint
                />
              </g>
            );
          })}
          {rooting && (
            <Ink
              d={[-0.9, 0.9]
                .map(
                  (k) =>
                    `M${k * height * 0.75} 0l${-height * 0.03} ${height * 0.13}M${k * height * 0.75} 0l${height * 0.04} ${height * 0.12}`,
                )
                .join("")}
            />
          )}
        </>
      ),
    };
  }
  if (form === "fern") {
    const fronds = [-58, -34, -12, 12, 34, 58];
    const undivided = traits.state("frond-division") === "undivided";
    return {
      ...base,
      box: [-height * 0.95, -height * 1.02, height * 1.9, height * 1.1],
      node: (
        <>
          {ground(height * 0.9)}
          {fronds.map((angle, i) => {
            const long = height * (1 - Math.abs(angle) / 260);
            const spine: Point[] = [0, 0.3, 0.6, 0.85, 1].map((t) => turn([0, -long * t], angle * (0.55 + 0.55 * t)));
            const rim = undivided
              ? ""
              : [0.22, 0.28, 0.34, 0.4, 0.46, 0.52, 0.58, 0.64, 0.7, 0.76, 0.82, 0.88, 0.94]
                  .map((t) => {
                    const at = turn([0, -long * t], angle * (0.55 + 0.55 * t));
                    const w = long * 0.2 * Math.sin(Math.PI * (0.16 + 0.8 * t)) ** 1.2;
                    const a = turn([at[0] - w, at[1] - w * 0.3], angle, at);
                    const b = turn([at[0] + w, at[1] - w * 0.3], angle, at);
                    return line([at, a]) + line([at, b]);
                  })
                  .join("");
            return (
              <g key={i}>
                {undivided && (
                  <Ink
                    d={
                      smooth([
                        ...spine.map(([x, y]): Point => [x - long * 0.05, y]),
                        ...[...spine].reverse().map(([x, y]): Point => [x + long * 0.05, y]),
                      ]) + "Z"
                    }
                    fill={leafWash}
                  />
                )}
                <Ink d={rim} width={1.3} />
                <Ink d={smooth(spine)} width={1.4} />
              </g>
            );
          })}
        </>
      ),
    };
  }
  if (form === "grass") {
    const blades = [-40, -28, -17, -8, 6, 15, 27, 39];
    const next = hand(8);
    const spike = traits.state("inflorescence-type") === "spike";
    return {
      ...base,
      box: [-height * 0.62, -height * 1.03, height * 1.24, height * 1.1],
      node: (
        <>
          {ground(height * 0.5)}
          <Ink
            d={blades
              .map((a) => {
                const long = height * (0.45 + next() * 0.25);
                return smooth([[a * height * 0.001, 0], turn([0, -long * 0.6], a * 0.6), turn([0, -long], a * 1.15)]);
              })
              .join("")}
            width={1.7}
          />
          {[-9, 3, 13].map((a) => {
            const top = turn([0, -height], a);
            return (
              <g key={a}>
                <Ink d={smooth([[0, 0], turn([0, -height * 0.5], a * 0.8), top])} width={1.2} />
                <Ink
                  d={[0.74, 0.8, 0.86, 0.92, 0.97]
                    .flatMap((t) =>
                      [-1, 1].map((s) => {
                        const p = turn([0, -height * t], a);
                        return `M${p[0]} ${p[1]}l${s * height * (spike ? 0.012 : 0.09 * (1.15 - t) * 4)} ${-height * 0.045}`;
                      }),
                    )
                    .join("")}
                  width={spike ? 3 : 1.6}
                />
              </g>
            );
          })}
        </>
      ),
    };
  }
  if (form === "aquatic") {
    const floats = traits.state("floating-leaves") ?? "absent";
    const submerged = traits.state("submerged-leaves") ?? "absent";
    const free = traits.state("water-attachment") === "free";
    const u = height / 10;
    const pad = (x: number) =>
      floats === "oval"
        ? `M${x - u * 1.3} ${-u * 7.9}q${u * 1.3} ${-u * 0.5} ${u * 2.6} 0q${-u * 1.3} ${u * 0.4} ${-u * 2.6} 0Z`
        : floats === "heart"
          ? `M${x - u * 1.1} ${-u * 7.9}q${u * 0.2} ${-u * 0.7} ${u * 1.1} ${-u * 0.2}q${u * 0.9} ${-u * 0.5} ${u * 1.1} ${u * 0.2}q${-u * 1} ${u * 0.5} ${-u * 2.2} 0Z`
          : `M${x - u} ${-u * 7.9}a${u} ${u * 0.3} 0 1 0 ${u * 2} 0a${u} ${u * 0.3} 0 1 0 ${-u * 2} 0Z`;
    const stems: [number, number][] = [
      [-2.6, 1],
      [0, -1],
      [2.6, 1],
    ];
    return {
      toScale: false,
      words: "habit in the water",
      box: [-u * 5, -u * 10, u * 10, u * 11],
      node: (
        <>
          <Ink
            d={smooth([
              [-u * 5, -u * 7.8],
              [-u * 2, -u * 7.9],
              [u * 2, -u * 7.7],
              [u * 5, -u * 7.85],
            ])}
            width={1.2}
            dash="7 4"
          />
          {!free && (
            <Ink
              d={smooth([
                [-u * 5, 0],
                [0, u * 0.15],
                [u * 5, -u * 0.1],
              ])}
              faint
            />
          )}
          {stems.map(([x, s]) => (
            <g key={x}>
              <Ink
                d={smooth([
                  [x * u * 0.4, free ? -u * 2 : 0],
                  [x * u * 0.7 + s * u * 0.3, -u * 3.5],
                  [x * u, -u * 7.6],
                ])}
                width={1.3}
              />
              {submerged === "threads" && (
                <Ink
                  d={[2.4, 3.8, 5.2, 6.4]
                    .flatMap((y) =>
                      [-1, 1].map((k) => {
                        const px = x * u * (0.5 + y * 0.06);
                        return `M${px} ${-y * u}l${k * u * 0.6} ${-u * 0.4}l${k * u * 0.5} ${-u * 0.45}M${px + k * u * 0.6} ${-(y + 0.4) * u}l${k * u * 0.55} ${u * 0.05}M${px + k * u * 0.6} ${-(y + 0.4) * u}l${k * u * 0.2} ${-u * 0.6}`;
                      }),
                    )
                    .join("")}
                  width={0.9}
                />
              )}
              {submerged === "whorled" && (
                <Ink
                  d={[2, 3, 4, 5, 6, 7]
                    .flatMap((y) =>
                      [-80, -50, 50, 80].map((a) => {
                        const at: Point = [x * u * (0.5 + y * 0.06), -y * u];
                        const end = turn([at[0], at[1] - u * 0.95], a, at);
                        return (
                          line([at, end]) +
                          [0.4, 0.6, 0.8]
                            .map((t) => {
                              const p: Point = [at[0] + (end[0] - at[0]) * t, at[1] + (end[1] - at[1]) * t];
                              return `M${p[0]} ${p[1]}l0 ${-u * 0.24}`;
                            })
                            .join("")
                        );
                      }),
                    )
                    .join("")}
                  width={0.8}
                />
              )}
              {submerged === "ribbon" && (
                <Ink
                  d={[-0.5, 0.1, 0.6]
                    .map((k) => {
                      const px = x * u * 0.5 + k * u;
                      return `M${px} ${-u * 0.2}C${px + k * u} ${-u * 3} ${px - k * u} ${-u * 4} ${px + k * u * 1.4} ${-u * 6.6}L${px + k * u * 1.4 + u * 0.32} ${-u * 6.4}C${px - k * u + u * 0.34} ${-u * 4} ${px + k * u + u * 0.34} ${-u * 3} ${px + u * 0.3} ${-u * 0.2}Z`;
                    })
                    .join("")}
                  fill={leafWash}
                  width={0.9}
                />
              )}
              {floats !== "absent" && <Ink d={pad(x * u)} fill={leafWash} width={1.3} />}
            </g>
          ))}
          <Ink
            d={line([
              [u * 0.2, -u * 7.8],
              [u * 0.3, -u * 9],
            ])}
          />
          <g transform={`translate(${u * 0.3} ${-u * 9.3})`}>
            <Ink
              d={[0, 72, 144, 216, 288]
                .map((a) => {
                  const e = turn([0, -u * 0.5], a);
                  return `M0 0q${e[0] * 0.4 - e[1] * 0.4} ${e[1] * 0.4 + e[0] * 0.4} ${e[0]} ${e[1]}q${e[1] * 0.4 - e[0] * 0.1} ${-e[0] * 0.4} ${-e[0]} ${-e[1]}`;
                })
                .join("")}
              fill={wash(traits.state("flower-colour"), "white")}
              width={0.9}
            />
          </g>
          {!free && (
            <Ink
              d={[-0.6, 0, 0.6].map((k) => `M${k * u} 0q${k * u * 0.4} ${u * 0.4} ${k * u * 1.2} ${u * 0.8}`).join("")}
            />
          )}
        </>
      ),
    };
  }
  if (form === "climber") {
    const organ = traits.state("climbing-organ") ?? "twining";
    const twining = organ === "twining";
    const h = height;
    return {
      ...base,
      box: [-h * 0.4, -h * 1.04, h * 0.8, h * 1.1],
      node: (
        <>
          {ground(h * 0.35)}
          {organ !== "none" && <Ink d={`M${-h * 0.015} 0V${-h}M${h * 0.015} 0V${-h}`} faint />}
          {organ === "hooks" && (
            <Ink
              d={[0.15, 0.3, 0.45, 0.6, 0.75, 0.9]
                .map((t) => `M${h * 0.05} ${-h * t}q${h * 0.05} 0 ${h * 0.05} ${h * 0.035}`)
                .join("")}
              width={1.8}
            />
          )}
          {organ === "rootlets" && (
            <Ink
              d={[0.12, 0.24, 0.36, 0.48, 0.6, 0.72, 0.84]
                .map(
                  (t) =>
                    `M${h * 0.09} ${-h * t}L${h * 0.02} ${-h * (t - 0.01)}M${h * 0.09} ${-h * (t + 0.02)}L${h * 0.02} ${-h * (t + 0.03)}`,
                )
                .join("")}
              width={1}
            />
          )}
          <Ink
            d={smooth(
              Array.from({ length: 17 }, (_, i): Point => [
                Math.sin(i * 0.95) * h * (twining ? 0.045 : 0.11),
                (-h * 0.97 * i) / 16,
              ]),
            )}
            width={1.5}
          />
          {Array.from({ length: 8 }, (_, i) => {
            const y = -h * (0.1 + i * 0.11);
            const s = i % 2 ? 1 : -1;
            const x = Math.sin((i * 1.9 + 1.6) * 0.95) * h * 0.1;
            return (
              <Ink
                key={i}
                d={smooth([
                  [x, y],
                  [x + s * h * 0.07, y - h * 0.055],
                  [x + s * h * 0.17, y - h * 0.02],
                  [x + s * h * 0.08, y + h * 0.025],
                  [x, y],
                ])}
                fill={leafWash}
                width={1}
              />
            );
          })}
          {traits.state("climbing-organ") === "tendrils" && (
            <Ink
              d={[0.25, 0.5, 0.75]
                .map((t) =>
                  smooth([
                    [0, -h * t],
                    [h * 0.08, -h * (t + 0.05)],
                    [h * 0.04, -h * (t + 0.08)],
                    [h * 0.02, -h * (t + 0.05)],
                  ]),
                )
                .join("")}
            />
          )}
        </>
      ),
    };
  }
  // herbs
  const attitude = traits.state("stem-attitude") ?? "erect";
  const h = height;
  const bend = (t: number): Point =>
    attitude === "prostrate"
      ? [h * (t - 0.4) * 1.3, -h * (0.06 + 0.24 * Math.max(0, t - 0.7))]
      : attitude === "ascending"
        ? [h * (0.42 * (1 - t) ** 2 - 0.1), -h * t]
        : attitude === "scrambling"
          ? [h * 0.32 * t * t - h * 0.1, -h * t]
          : [h * 0.02 * Math.sin(t * 5), -h * t];
  const arrangement = traits.state("leaf-arrangement") ?? "alternate";
  const isRosette = arrangement === "rosette";
  const long = Math.min(h * 0.55, Math.max(h * 0.1, traits.size("leaf-length") ?? h * 0.22));
  const shape = traits.state("leaf-shape") ?? "ovate";
  const slim = ["linear", "needle"].includes(shape)
    ? 0.05
    : ["lanceolate", "oblong", "spoon"].includes(shape)
      ? 0.16
      : 0.3;
  const cut =
    traits.state("leaf-division") === "lobed" || ["pinnate", "bipinnate"].includes(traits.state("leaf-division") ?? "");
  const leafAt = (at: Point, angle: number, length: number) => {
    const point = (x: number, y: number) => turn([at[0] + x * length, at[1] - y * length], angle, at);
    const rim: Point[] = cut
      ? [
          [0, 0],
          [0.1, 0.25],
          [slim * 0.9, 0.3],
          [0.08, 0.42],
          [slim, 0.55],
          [0.08, 0.62],
          [slim * 0.7, 0.8],
          [0, 1],
          [-slim * 0.7, 0.8],
          [-0.08, 0.62],
          [-slim, 0.55],
          [-0.08, 0.42],
          [-slim * 0.9, 0.3],
          [-0.1, 0.25],
          [0, 0],
        ]
      : [
          [0, 0],
          [slim * 0.8, 0.28],
          [slim, 0.5],
          [slim * 0.55, 0.8],
          [0, 1],
          [-slim * 0.55, 0.8],
          [-slim, 0.5],
          [-slim * 0.8, 0.28],
          [0, 0],
        ];
    return cut ? line(rim.map(([x, y]) => point(x, y))) : smooth(rim.map(([x, y]) => point(x, y)));
  };
  const leaves: string[] = [];
  if (isRosette) for (const a of [-78, -52, -26, 20, 48, 76]) leaves.push(leafAt([0, 0], a, long));
  else {
    for (const [i, t] of [0.12, 0.27, 0.42, 0.57, 0.72].entries()) {
      const at = bend(t);
      const size = long * (1 - t * 0.45);
      const sides =
        arrangement === "alternate" ? [i % 2 ? 1 : -1] : arrangement === "whorled" ? [-1, -0.35, 0.35, 1] : [-1, 1];
      for (const s of sides) leaves.push(leafAt(at, s * 62, size * (arrangement === "whorled" ? 0.8 : 1)));
    }
  }
  const top = bend(1);
  const type = traits.state("inflorescence-type") ?? "single";
  const fill = wash(traits.state("flower-colour"), "white");
  const r = h * (type === "head" || type === "single" ? 0.06 : 0.028);
  const blooms: Point[] =
    type === "umbel" || type === "compound-umbel"
      ? [-0.2, -0.12, -0.04, 0.04, 0.12, 0.2].map((k): Point => [
          top[0] + k * h,
          top[1] - h * (0.04 - Math.abs(k) * 0.12),
        ])
      : type === "raceme" || type === "spike"
        ? [0, 1, 2, 3, 4, 5].map((i): Point => {
            const p = bend(0.78 + i * 0.045);
            return [p[0] + (i % 2 ? 1 : -1) * h * (type === "spike" ? 0.018 : 0.045), p[1]];
          })
        : type === "whorls"
          ? [0.6, 0.74, 0.88].flatMap((t) => [-0.03, 0, 0.03].map((k): Point => [bend(t)[0] + k * h, bend(t)[1]]))
          : type === "cyme" || type === "cluster" || type === "panicle"
            ? [
                [-0.1, -0.01],
                [0, -0.04],
                [0.1, -0.01],
                [-0.05, 0.03],
                [0.06, 0.03],
              ].map(([x = 0, y = 0]): Point => [top[0] + x * h, top[1] + y * h])
            : [[top[0], top[1] - r * 0.6]];
  return {
    ...base,
    box:
      attitude === "prostrate"
        ? [-h * 0.7, -h * 0.55, h * 1.6, h * 0.62]
        : [
            -Math.max(h * 0.42, isRosette ? long * 1.02 : 0),
            -h * 1.12,
            Math.max(h * 0.84, isRosette ? long * 2.04 : 0),
            h * 1.18,
          ],
    node: (
      <>
        {attitude === "floating" && (
          <Ink
            d={smooth([
              [-h * 0.4, -h * 0.5],
              [-h * 0.1, -h * 0.52],
              [h * 0.2, -h * 0.49],
              [h * 0.4, -h * 0.51],
            ])}
            dash="7 4"
          />
        )}
        {ground(h * 0.4)}
        <Ink d={smooth([[0, 0], ...[0.25, 0.5, 0.75, 1].map(bend)])} width={1.8} />
        {leaves.map((d, i) => (
          <Ink key={i} d={d} fill={leafWash} width={1} />
        ))}
        {(type === "umbel" || type === "compound-umbel" || type === "cyme" || type === "cluster") && (
          <Ink d={blooms.map((b) => line([bend(0.86), b])).join("")} />
        )}
        <Ink
          d={blooms.map(([x, y]) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`).join("")}
          fill={fill}
          width={1.1}
        />
      </>
    ),
  };
}
