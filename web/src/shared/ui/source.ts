import type { Schemas } from "../../api/client";

/** Where a pasted text is from, what may be done with it, and whether only this device sees it. */
export type Source = Pick<Schemas["TextSource"], "book" | "page" | "licence" | "onlyHere">;

export const NO_SOURCE: Source = { book: "", page: "", licence: "unsaid", onlyHere: false };
