const pinned = document.querySelector<HTMLMetaElement>('meta[name="garten-today"]')?.content;

/** Whether the server pins the day: it is there for showing and testing. */
export const isPinned = pinned !== undefined;

/** A date as a date field writes it. */
export function iso(date: Date): string {
  const pad = (part: number) => String(part).padStart(2, "0");
  return `${date.getFullYear()}-${pad(date.getMonth() + 1)}-${pad(date.getDate())}`;
}

/** Today on this device, as a date field writes it; the server may pin it. */
export function today(): string {
  return pinned ?? iso(new Date());
}

/** The time of the day on this device, as a time field writes it. */
export const timeNow = (): string => new Date().toTimeString().slice(0, 5);
