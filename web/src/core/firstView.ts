// The core takes a second of a processor to start. On a phone, and on a machine that serves the page itself, that second is the first view's: the
// server answers meanwhile.
const FIRST_VIEW_MS = 1_200;

let resolve: () => void = () => undefined;

/** When the first view has had its time, or nobody else can answer. */
export const firstViewDone = new Promise<void>((done) => (resolve = done));

/** Begins to count once the page is drawn. */
export function firstViewDrawn(): void {
  setTimeout(resolve, FIRST_VIEW_MS);
}

/** No server answers: the core is wanted at once. */
export function hurry(): void {
  resolve();
}
