import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { entityKind, ORIGIN, X_AXIS, Y_AXIS, type Entities } from '../entities/index.ts';
import type { FreeMotion } from '../motions.ts';
import { isSized, relationKind, type Relation } from '../relations/index.ts';

/** What every sketch has, in words. */
export const BUILT_IN_NAMES: Readonly<Record<Id, string>> = {
  [ORIGIN]: 'the origin',
  [X_AXIS]: 'the x axis',
  [Y_AXIS]: 'the y axis',
};

/** What the entities of a sketch are called in sentences: the kind and a number, counted by kind as drawn. */
export function entityNames(entities: Entities): (id: Id) => string {
  const counts: Record<string, number> = {};
  const names = new Map<Id, string>(Object.entries(BUILT_IN_NAMES));
  for (const [id, { kind }] of Object.entries(entities)) {
    counts[kind] = (counts[kind] ?? 0) + 1;
    names.set(id, `${entityKind(kind).title} ${counts[kind]}`);
  }
  return (id) => names.get(id) ?? '?';
}

/** A relation as a sentence: "line 2 and line 3 are parallel". */
export function relationSentence(relation: Relation, nameOf: (id: Id) => string): string {
  const kind = relationKind(relation.kind);
  const names = kind.refs(relation).map(nameOf);
  const value = isSized(relation) && !relation.measuring ? ` ${relation.value}` : '';
  const way = kind.way?.(relation);
  const words = names.length > 1 ? kind.words.replace(/^is /, 'are ') : kind.words;
  return `${listed(names)} ${words}${value}${way === undefined ? '' : ` (${way})`}`;
}

/** A freedom as a sentence: "line 4 can slide sideways". */
export function motionSentence(motion: FreeMotion, nameOf: (id: Id) => string): string {
  const who = listed(motion.entities.map(nameOf));
  const part = motion.end === undefined ? '' : `${nameOf(motion.end)} of `;
  return `${part}${who} can ${LOOKS[motion.look](motion)}`;
}

const LOOKS: Readonly<Record<FreeMotion['look'], (motion: FreeMotion) => string>> = {
  grow: () => 'grow',
  turn: () => 'turn',
  change: () => 'change together',
  slide: ({ direction }) => `slide ${alongWords(direction!)}`,
  spread: ({ direction }) => `spread ${alongWords(direction!)}`,
};

function alongWords([x, y]: Vec2): string {
  if (Math.abs(y) < 1e-3) return 'sideways';
  if (Math.abs(x) < 1e-3) return 'up and down';
  return `at ${Math.round((Math.atan2(y, x) * 180) / Math.PI)}°`;
}

/** "a, b and c"; of many the first three and how many more. */
function listed(names: readonly string[]): string {
  if (names.length > 4) return `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;
  return names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
