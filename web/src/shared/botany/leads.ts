/** The letter of a lead: a, b, c … */
export const leadLetter = (index: number) => String.fromCharCode("a".charCodeAt(0) + index);
