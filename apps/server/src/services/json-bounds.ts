import { Refusal } from './refusal.ts';

/** How deep and how large JSON may be: looked at in its bytes, before anything is made of it. */
export interface JsonBounds {
  readonly depth: number;
  /** Values in one list or record, and in all of them together. */
  readonly inOne: number;
  readonly inAll: number;
}

const [QUOTE, BACKSLASH, COMMA, LIST, RECORD, LIST_END, RECORD_END] = [...'"\\,[{]}'].map((sign) => sign.charCodeAt(0));

/** Refuses what is deeper or larger. What is no JSON is found by whoever reads it. */
export function checkBounds(bytes: Uint8Array, { depth: deepest, inOne, inAll }: JsonBounds): void {
  const counts: number[] = [];
  let all = 0;
  let isText = false;
  for (let k = 0; k < bytes.length; k++) {
    const sign = bytes[k];
    if (isText) {
      if (sign === BACKSLASH) k++;
      else if (sign === QUOTE) isText = false;
    } else if (sign === QUOTE) isText = true;
    else if (sign === LIST || sign === RECORD) {
      if (counts.push(1) > deepest) throw new Refusal(422, `The request is nested more than ${deepest} deep.`);
      all++;
    } else if (sign === LIST_END || sign === RECORD_END) counts.pop();
    else if (sign === COMMA) {
      all++;
      if (++counts[counts.length - 1]! > inOne || all > inAll)
        throw new Refusal(422, 'The request has more values than any project.');
    }
  }
}
