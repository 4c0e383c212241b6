import { IssueError, issue } from '../result/index.ts';
import { findUnit } from '../units/index.ts';

export type Token =
  | { readonly type: 'number'; readonly amount: number; readonly whole: boolean; readonly at: number }
  | { readonly type: 'unit'; readonly symbol: string; readonly at: number }
  | { readonly type: 'name'; readonly name: string; readonly at: number }
  | { readonly type: 'sign'; readonly sign: string; readonly at: number }
  | { readonly type: 'end'; readonly at: number };

export const MAX_LENGTH = 200;

const NUMBER_PATTERN = /(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y;
/** A name may hold single spaces between its words: "axis height", "mesh pitch 2". */
const NAME_PATTERN = /[\p{L}_][\p{L}\p{N}_]*(?: +[\p{L}\p{N}_]+)*/uy;
const WORD_PATTERN = /[\p{L}_°"']+/uy;
const SIGNS = '+-*/^(),';

/** Signs as they come from elsewhere, one for one, so that places in the text stay what they are. */
const LIKE: Readonly<Record<string, string>> = {
  ...{ '\u2212': '-', '\u2013': '-', '\u00d7': '*', '\u00b7': '*', '\u00f7': '/', '\u2044': '/' },
  ...{ '\u2033': '"', '\u201d': '"', '\u201c': '"', '\u2032': "'", '\u2019': "'", '\u2018': "'", '\u00ba': '°' },
};
const plain = (text: string): string => text.replace(/[^\x20-\x7e]/g, (char) => LIKE[char] ?? char);

/** Splits the text of an expression; directly after a number, or what stands in brackets, a word is its unit. Throws IssueError. */
export function tokenise(typed: string): Token[] {
  const text = plain(typed);
  if (text.length > MAX_LENGTH)
    throw new IssueError(issue('expression.long', { length: text.length, most: MAX_LENGTH }));
  const tokens: Token[] = [];
  let at = 0;
  const match = (pattern: RegExp): string | undefined => {
    pattern.lastIndex = at;
    return pattern.exec(text)?.[0];
  };
  while (at < text.length) {
    const char = text[at]!;
    if (/\s/.test(char)) {
      at++;
      continue;
    }
    const token = read(char, at, tokens.at(-1), match, text);
    tokens.push(token.token);
    at += token.size;
  }
  tokens.push({ type: 'end', at: text.length });
  return tokens;
}

function read(
  char: string,
  at: number,
  previous: Token | undefined,
  match: (pattern: RegExp) => string | undefined,
  text: string,
): { token: Token; size: number } {
  const number = match(NUMBER_PATTERN);
  if (number !== undefined)
    return {
      token: { type: 'number', amount: Number(number), whole: /^\d+$/.test(number), at },
      size: number.length,
    };
  const closes = previous?.type === 'sign' && previous.sign === ')';
  if (previous?.type === 'number' || closes) {
    const word = match(WORD_PATTERN);
    if (word !== undefined) {
      if (!findUnit(word)) throw new IssueError(issue('expression.unit', { word, text }));
      return { token: { type: 'unit', symbol: word, at }, size: word.length };
    }
  }
  const name = match(NAME_PATTERN);
  if (name !== undefined) return { token: { type: 'name', name: tidyName(name), at }, size: name.length };
  if (SIGNS.includes(char)) return { token: { type: 'sign', sign: char, at }, size: 1 };
  throw new IssueError(issue('expression.character', { char, text }));
}

/** Names compare with single spaces and without spaces at the ends. */
export const tidyName = (name: string): string => name.trim().replace(/ +/g, ' ');

/** Is the whole text one name, as the tokeniser reads it? */
export function isName(text: string): boolean {
  const tidy = tidyName(text);
  NAME_PATTERN.lastIndex = 0;
  return NAME_PATTERN.exec(tidy)?.[0] === tidy;
}
