import { setImmediate } from 'node:timers/promises';

/** Text as it is written at once, bytes. */
const AT_ONCE = 64 * 1024;

/** A value of JSON (no dates, nothing that turns itself into one) as text, in pieces: between them others have their turn. */
export async function* piecesOf(value: unknown): AsyncGenerator<string> {
  let piece = '';
  for (const text of tokensOf(value, 0)) {
    piece += text;
    if (piece.length < AT_ONCE) continue;
    yield piece;
    piece = '';
    await setImmediate();
  }
  yield piece;
}

/** Deep in a document records are small: they are written whole. */
const WHOLE_FROM = 5;

function* tokensOf(value: unknown, depth: number): Generator<string> {
  if (typeof value !== 'object' || value === null || depth >= WHOLE_FROM) {
    yield JSON.stringify(value) ?? 'null';
    return;
  }
  const isList = Array.isArray(value);
  let isFirst = true;
  yield isList ? '[' : '{';
  for (const [key, entry] of Object.entries(value)) {
    if (entry === undefined && !isList) continue;
    yield `${isFirst ? '' : ','}${isList ? '' : `${JSON.stringify(key)}:`}`;
    isFirst = false;
    yield* tokensOf(entry, depth + 1);
  }
  yield isList ? ']' : '}';
}
