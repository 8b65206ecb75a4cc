import { oneFigure } from "../../shared/calendar/day";

const sign = (value: number, plus: string) => (value > 0 ? plus : value < 0 ? "−" : "");

/** A number with its sign: "−0.6"; one above 0 with what is given for plus. */
export const number = (value: number, plus = "") => `${sign(value, plus)}${oneFigure(Math.abs(value))}`;

/** A share as a change in per cent: "+10 %". */
export const signed = (share: number) => `${sign(share, "+")}${Math.round(Math.abs(share) * 100)} %`;
