/** Offers a text as a file of its own. */
export function takeAway(name: string, text: string, type = "application/json"): void {
  const address = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** The day of a moment where this device is. */
export function isoDay(at: number): string {
  const date = new Date(at - new Date(at).getTimezoneOffset() * 60_000);
  return date.toISOString().slice(0, 10);
}
