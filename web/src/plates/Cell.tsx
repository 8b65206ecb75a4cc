import { barOf, type Drawn } from "./pen";

// Room for the scale bar below a part.
const LABEL = 20;

/** The largest scale at which a part fits into a cell. */
export function scaleInCell(part: Drawn, width: number, height: number): number {
  const [, , w, h] = part.box;
  return Math.min((width - 16) / w, (height - LABEL - 16) / h);
}

/** Puts a part into a cell, as large as it fits, with its bar. */
export function Cell({
  part,
  x,
  y,
  width,
  height,
  label,
  scale: given,
}: {
  part: Drawn;
  x: number;
  y: number;
  width: number;
  height: number;
  label?: boolean;
  /** Pixels per millimetre, where several are drawn to one scale; else as large as it fits. */
  scale?: number;
}) {
  const room = height - (label === false ? 0 : LABEL);
  const pad = 8;
  const [left, top, w, h] = part.box;
  const scale = given ?? Math.min((width - pad * 2) / w, (room - pad * 2) / h);
  const [offsetX, offsetY] = [x + (width - w * scale) / 2 - left * scale, y + (room - h * scale) / 2 - top * scale];
  const bar = barOf((width / scale) * 0.9);
  const barWidth = bar.length * scale;
  return (
    <g>
      {part.clipped ? (
        <svg x={x + pad} y={y + pad} width={width - pad * 2} height={room - pad * 2} viewBox={part.box.join(" ")}>
          {part.node}
        </svg>
      ) : (
        <g transform={`translate(${offsetX} ${offsetY}) scale(${scale})`}>{part.node}</g>
      )}
      {part.toScale && label !== false && (
        <g transform={`translate(${x + width / 2 - barWidth / 2 - 14} ${y + height - 12})`}>
          <path d={`M0 -3v6M0 0H${barWidth}M${barWidth} -3v6`} stroke="currentColor" strokeWidth={1.1} fill="none" />
          <text x={barWidth + 5} y={4} fontSize={11} fill="currentColor" fontFamily="inherit">
            {bar.words}
          </text>
        </g>
      )}
    </g>
  );
}
