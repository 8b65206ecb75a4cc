const pinned = document.querySelector<HTMLMetaElement>('meta[name="garten-today"]')?.content;

/** Today on this device, as a date field writes it; the server may pin it. */
export function today(): string {
  return pinned ?? iso(new Date());
}

export function iso(date: Date): string {
  const pad = (part: number) => String(part).padStart(2, "0");
  return `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`;
}

/** A day as a date at noon. */
export const dated = (day: string) => new Date(`${day}T12:00`);

/** Today as a date. */
export const now = () => dated(today());

const long = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long", year: "numeric" });
const short = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });

/** "4 May 2026". */
export const spoken = (day: string) => long.format(dated(day));

/** "4 May". */
export const brief = (day: string) => short.format(dated(day));

const DAY_MS = 86_400_000;

/** Days from one day to another; below 0 where the other is earlier. */
export const daysBetween = (from: string, to: string) =>
  Math.round((dated(to).getTime() - dated(from).getTime()) / DAY_MS);

/** A day so many days later. */
export const daysLater = (day: string, days: number) => iso(new Date(dated(day).getTime() + days * DAY_MS));

/** Days of the year; 29 February is none of its own. */
export const DAYS = 365;

const MONTH_STARTS = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];

/** The days of the year on which months begin, from 0. */
export const monthStarts = MONTH_STARTS;

/** Day of the year, 29 February counted as the 28th. */
export function dayOfYear(date: Date): number {
  return (MONTH_STARTS[date.getMonth()] ?? 0) + Math.min(date.getDate(), date.getMonth() === 1 ? 28 : 31);
}

/** Whether a stretch of the year holds a day of it. */
export const holds = (window: { from: number; to: number }, day: number) =>
  window.from <= window.to ? day >= window.from && day <= window.to : day >= window.from || day <= window.to;

/** Stretches of the year, those over the new year in two pieces. */
export const pieces = (windows: { from: number; to: number }[]) =>
  windows.flatMap((w) =>
    w.from <= w.to
      ? [w]
      : [
          { from: w.from, to: DAYS },
          { from: 1, to: w.to },
        ],
  );

/** A day as botanists write it: 23 May 2026. */
export function day(date: string): string {
  return new Date(date + "T12:00:00").toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });
}
