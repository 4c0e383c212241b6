import { CLICKED_SIZES, isBuiltIn, ORIGIN, relationKind, type Id, type SizedRelation, type Vec2 } from '@helb/core';
import { reached } from './select-tool.ts';
import { beginsName, beginsNumber } from './size-typing.ts';
import { NO_PREVIEW, type PointerAt, type Preview, type Tool, type ToolHost } from './tool.ts';

interface SizeHost extends ToolHost {
  select(ids: readonly Id[], add: boolean): void;
  hover(id: Id | undefined): void;
  /** Shows a dimension that is not made yet. */
  propose(relation: SizedRelation | undefined): void;
  /** Asks for the number of the proposed dimension. @param begun what was typed of it already */
  ask(relation: SizedRelation, id?: Id, begun?: string): void;
}

/** From where circles are measured: their centres, their near rims, their far rims. */
const RIMS = [0, 1, -1] as const;
type Rim = (typeof RIMS)[number];

/** The dimension between these picks, its text at this place; undefined where there is none. */
function sizeFor(host: ToolHost, picks: readonly Id[], at: Vec2, rim: Rim = 0): SizedRelation | undefined {
  const { reachable: geometry } = host;
  for (const name of CLICKED_SIZES) {
    const { fit, dimension } = relationKind(name);
    const { toText, toRims } = dimension!;
    const relation = fit(picks, geometry) as SizedRelation | undefined;
    if (!relation) continue;
    const placed: SizedRelation = { ...relation, at: [at[0], at[1]] };
    const meant = toText?.(placed, geometry, at) ?? placed;
    return (rim === 0 ? meant : (toRims?.(meant, picks, geometry, rim) ?? meant)) as SizedRelation;
  }
  return undefined;
}

/** A dimension with all that can be meant between the same things, each in words. */
interface Meant {
  readonly relation: SizedRelation;
  readonly ways: readonly Way[];
  /** Which of them the dimension is; -1 where there is nothing to choose. */
  readonly at: number;
}
interface Way {
  readonly title: string;
  readonly relation: SizedRelation;
}

const sameWay = (one: SizedRelation, other: SizedRelation): boolean =>
  one.kind === other.kind && relationKind(one.kind).way?.(one) === relationKind(other.kind).way?.(other);

/** Click one or two things, then where the number shall stand; then type it. Typed at once it finds a place by itself. */
export class SizeTool implements Tool {
  readonly name = 'size';
  preview: Preview = NO_PREVIEW;
  private picks: Id[] = [];
  private rim: Rim = 0;
  /** What is meant, by its words, where that was told by the key; else the place of the number tells. */
  private way: string | undefined;
  /** What would be made now. */
  private shown: Meant | undefined;
  private pointer: PointerAt | undefined;

  constructor(
    private readonly host: SizeHost,
    picks: readonly Id[] = [],
  ) {
    // more than can be sized was selected for something else
    if (picks.length < 2 || sizeFor(host, picks, [0, 0])) this.picks = [...picks];
    else host.select([], false);
  }

  get isBusy(): boolean {
    return this.picks.length > 0;
  }

  get hint(): string {
    if (this.picks.length === 0) return 'Click a line, a circle, or two things.';
    const { ways, at } = this.shown ?? { ways: [], at: -1 };
    const way = at < 0 ? '' : ` ${ways[at]!.title}; W: ${ways[(at + 1) % ways.length]!.title}.`;
    const axis = this.picks.length === 1 ? ' Shift: an axis.' : '';
    return `Type the number or its name, or click where it shall stand, or a second thing.${axis}${this.round() ? ' R: to the rim.' : ''}${way}`;
  }

  key(key: string): boolean {
    if (key === 'w' && this.shown) {
      const { ways, at, relation } = this.shown;
      if (ways.length === 0) return false;
      this.way = ways[(at + 1) % ways.length]!.title;
      this.show(this.sizeOf(this.picks, relation.at as Vec2));
      return true;
    }
    if (key === 'r' && this.round()) {
      this.rim = RIMS[(RIMS.indexOf(this.rim) + 1) % RIMS.length]!;
      return true;
    }
    if (!this.isBusy || !(beginsNumber(key) || beginsName(key))) return false;
    this.begin(key);
    // never a verb of what is selected
    return true;
  }

  /** The number is typed before it has a place: it gets one where the pointer rests, off all things, or where there is room. */
  private begin(text: string): void {
    const { pointer, picks } = this;
    const size = this.shown ?? this.sizeOf(picks, pointer?.at ?? [0, 0]);
    if (!size) return;
    const { at: _, ...anywhere } = size.relation;
    const isOnThing = !pointer || this.under(pointer) !== undefined;
    this.escape();
    this.host.ask(isOnThing ? anywhere : size.relation, undefined, text);
  }

  /** Is something round among what is measured? */
  private round(): boolean {
    return this.picks.some((id) => this.host.reachable.roleOf(id) === 'circle');
  }

  move(pointer: PointerAt): void {
    this.pointer = pointer;
    const under = this.under(pointer);
    this.host.hover(under);
    const second = under !== undefined && this.picks.length === 1 ? [...this.picks, under] : this.picks;
    this.show(this.sizeOf(second, pointer.at) ?? this.sizeOf(this.picks, pointer.at));
  }

  private show(meant: Meant | undefined): void {
    this.shown = meant;
    this.host.propose(meant?.relation);
  }

  down(pointer: PointerAt): void {
    this.pointer = pointer;
    const under = this.under(pointer);
    const fresh = under !== undefined && !this.picks.includes(under);
    if (fresh && (this.picks.length === 0 || sizeFor(this.host, [...this.picks, under], pointer.at))) {
      this.picks = [...this.picks, under];
      this.host.select(this.picks, false);
      if (this.picks.length < 2) return;
      this.show(this.sizeOf(this.picks, pointer.at));
      return;
    }
    const size = this.sizeOf(this.picks, pointer.at);
    if (!size) return;
    this.escape();
    this.host.ask(size.relation);
  }

  private sizeOf(picks: readonly Id[], at: Vec2): Meant | undefined {
    const size = sizeFor(this.host, picks, at, this.rim);
    if (!size) return undefined;
    const ways = (relationKind(size.kind).dimension?.ways?.(size, this.host.reachable) ?? []) as readonly Way[];
    const told = ways.findIndex(({ title }) => title === this.way);
    if (told < 0) return { relation: size, ways, at: ways.findIndex((way) => sameWay(way.relation, size)) };
    return { relation: { ...ways[told]!.relation, at: [at[0], at[1]] }, ways, at: told };
  }

  /** Numbers often stand near an axis: as the second thing that is taken only when asked for. */
  private under(pointer: PointerAt): Id | undefined {
    const id = reached(this.host, pointer);
    const isAxis = id !== undefined && id !== ORIGIN && isBuiltIn(id);
    return isAxis && this.picks.length === 1 && !pointer.add ? undefined : id;
  }

  escape(): boolean {
    const busy = this.isBusy;
    this.picks = [];
    this.rim = 0;
    this.way = undefined;
    this.show(undefined);
    this.host.select([], false);
    return busy;
  }
}
