export const RECORDER = "garten.recorder";

export const PLACE = "garten.place";

/** The place of the last record; empty where none is known. */
export const lastPlace = () => localStorage.getItem(PLACE) ?? "";

/** Who recorded last; empty where nobody has. */
export const lastRecorder = () => localStorage.getItem(RECORDER) ?? "";
