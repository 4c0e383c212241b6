/** A number as people type it: with a comma, with the minus sign of a sheet. NaN for what is none. */
export const typedNumber = (text: string): number => Number(text.replace(',', '.').replace('−', '-'));
