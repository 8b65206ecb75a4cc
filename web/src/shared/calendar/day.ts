import { iso, today } from "../../api/today";
import words from "../../api/words";

export { iso, today };

/** A day as a date at noon. */
export const dated = (day: string) => new Date(`${day}T12:00`);

/** Today as a date. */
export const now = () => dated(today());

/** What dates and numbers are written by: the reader's own languages. */
export const locale: readonly string[] = navigator.languages;

const format = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat([...locale], options);
const long = format({ day: "numeric", month: "long", year: "numeric" });
const withMonth = format({ day: "numeric", month: "long" });
const withWeekday = format({ weekday: "long", day: "numeric", month: "long" });
const short = format({ day: "numeric", month: "short" });
const shortYear = format({ day: "numeric", month: "short", year: "numeric" });

/** "4 May 2026", as the reader writes it. */
export const spoken = (day: string) => long.format(dated(day));

/** "4 May". */
export const brief = (day: string) => short.format(dated(day));

/** "4 May 2026", with a short month. */
export const day = (date: string) => shortYear.format(dated(date));

/** A day, or a span of days where no more is known: "1 – 30 Jun 1998". */
export const dayOrSpan = (from: string, until: string | null | undefined) =>
  until ? shortYear.formatRange(dated(from), dated(until)) : day(from);

/** "4 May", with the whole month. */
export const ofYear = (day: string) => withMonth.format(dated(day));

// A year with a 29 February.
const LEAP_YEAR = "2024";

/** "31 May", of a month and day that come every year ("05-31"). */
export const everyYear = (monthAndDay: string) => brief(`${LEAP_YEAR}-${monthAndDay}`);

/** "Monday 4 May". */
export const weekday = (day: string) => withWeekday.format(dated(day));

const DAY_MS = 86_400_000;

/** A day so many days later. */
export const daysLater = (day: string, days: number) => iso(new Date(dated(day).getTime() + days * DAY_MS));

/** A number with at most one figure behind the point, as the reader writes it. */
export const oneFigure = (value: number) => value.toLocaleString([...locale], { maximumFractionDigits: 1 });

/** The same with its sign. */
export const signed = (value: number) =>
  value.toLocaleString([...locale], { maximumFractionDigits: 1, signDisplay: "always" });

const { days, monthStarts: firsts, leapDay } = words.calendar;
const numbers = new Map(days.map((date, at) => [date, at + 1]));

/** Days of the year; 29 February is none of its own. */
export const DAYS = days.length;

/** The days of the year before which months begin, from 0. */
export const monthStarts = firsts.map((first) => first - 1);

/** Day of the year of a day. */
export const dayOfYear = (day: string) => numbers.get(day.slice(5)) ?? leapDay;

// A year that has no 29 February: only day and month are read of it.
const inPlainYear = (number: number) => `2001-${days[number - 1] ?? days[0]}`;

/** Names of the months, from January: "January", "Jan" or "J". */
export const months = (width: "long" | "short" | "narrow") => {
  const name = format({ month: width });
  return firsts.map((first) => name.format(dated(inPlainYear(first))));
};

/** A stretch of the year in words: "12 May to 3 July". */
export const windowInWords = (w: { from: number; to: number }) =>
  w.from === 1 && w.to === DAYS ? "all year" : `${ofYear(inPlainYear(w.from))} to ${ofYear(inPlainYear(w.to))}`;

/** Stretches of the year in words. */
export const windowsInWords = (windows: { from: number; to: number }[]) =>
  windows.length === 0 ? "never" : windows.map(windowInWords).join(", ");

/** Stretches of the year as they are drawn from left to right: those over the new year in two pieces. */
export const pieces = <W extends { from: number; to: number }>(windows: W[]): W[] =>
  windows.flatMap((w) =>
    w.from <= w.to
      ? [w]
      : [
          { ...w, to: DAYS },
          { ...w, from: 1 },
        ],
  );
