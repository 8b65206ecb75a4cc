import { v7 as uuid } from "uuid";

const DEVICE = "garten.device";

/** This device, made once: the server keeps with each command where it came from, and shows a text that was brought for one device to it
 * alone. */
export function deviceId(): string {
  const known = localStorage.getItem(DEVICE);
  if (known) return known;
  const made = uuid();
  localStorage.setItem(DEVICE, made);
  return made;
}
