/** "one spot", "3 spots": figures with their noun. */
export const countOf = (n: number, noun: string): string => (n === 1 ? `one ${noun}` : `${n} ${noun}s`);
