import words from "./words.json";

// The fixed words and values of the job: made from the core, written down nowhere else.
export default words;
