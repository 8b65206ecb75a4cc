/** A probability in percent, never with more precision than it has. */
export function percent(share: number): string {
  if (share > 0.995) return "over 99 %";
  if (share < 0.005) return "under 1 %";
  return `${Math.round(share * 100)} %`;
}
