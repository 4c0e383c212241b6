import type { ProjectCard } from '../sync/api.ts';

/** Where one looks: everything, one folder, or what was thrown away. */
export type Pile =
  { readonly kind: 'all' } | { readonly kind: 'folder'; readonly name: string } | { readonly kind: 'thrown' };

interface Order {
  readonly title: string;
  readonly before: (a: ProjectCard, b: ProjectCard) => number;
}

const byName = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' }).compare;
const latest = (a: ProjectCard, b: ProjectCard) => b.changedAt.localeCompare(a.changedAt);

/** In which order cards lie. */
export const ORDERS = {
  latest: { title: 'the latest first', before: latest },
  name: { title: 'by name', before: (a, b) => byName(a.name, b.name) || latest(a, b) },
  open: {
    title: 'what is most open first',
    before: (a, b) => (b.findings ?? 0) - (a.findings ?? 0) || latest(a, b),
  },
} as const satisfies Record<string, Order>;
export type OrderName = keyof typeof ORDERS;

export const isThrown = ({ goesAt }: ProjectCard): boolean => goesAt !== null;

function liesOn(card: ProjectCard, pile: Pile): boolean {
  if (isThrown(card) !== (pile.kind === 'thrown')) return false;
  return pile.kind !== 'folder' || card.folder === pile.name;
}

/** Without marks over letters, and small: "Säule" is found by "saule". */
const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{Mn}/gu, '')
    .toLowerCase();

/** Is each of the words in its name, or in the name of its folder? */
function isFoundBy(card: ProjectCard, words: string): boolean {
  const text = plain(`${card.name} ${card.folder ?? ''}`);
  return plain(words)
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** The cards of a pile that hold all words, in an order. Words look through all folders. */
export const shelved = (cards: readonly ProjectCard[], pile: Pile, words: string, order: OrderName): ProjectCard[] =>
  cards
    .filter((card) => liesOn(card, words.trim() && pile.kind === 'folder' ? { kind: 'all' } : pile))
    .filter((card) => isFoundBy(card, words.trim()))
    .sort(ORDERS[order].before);

/** The folders that hold something, by name, and how much. */
export function foldersOf(cards: readonly ProjectCard[]): { readonly name: string; readonly count: number }[] {
  const counts = new Map<string, number>();
  for (const { folder } of cards.filter((card) => !isThrown(card)))
    if (folder !== null) counts.set(folder, (counts.get(folder) ?? 0) + 1);
  return [...counts].map(([name, count]) => ({ name, count })).sort((a, b) => byName(a.name, b.name));
}
