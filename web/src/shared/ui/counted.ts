/** So many of something, in words: "1 taxon", "12 taxa". */
export const counted = (number: number, one: string, many = `${one}s`): string =>
  `${number} ${number === 1 ? one : many}`;
