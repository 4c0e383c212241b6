import { CLICKED_SIZES, isBuiltIn, ORIGIN, relationKind, type Id, type SizedRelation, type Vec2 } from '@helb/core';
import { reached } from './select-tool.ts';
import { NO_PREVIEW, type PointerAt, type Preview, type Tool, type ToolHost } from './tool.ts';

interface SizeHost extends ToolHost {
  select(ids: readonly Id[], add: boolean): void;
  hover(id: Id | undefined): void;
  /** Shows a dimension that is not made yet. */
  propose(relation: SizedRelation | undefined): void;
  /** Asks for the number of the proposed dimension. */
  ask(relation: SizedRelation): void;
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

/** What can be meant between the same things, the words of each, and which of them a dimension is. */
function waysOf(relation: SizedRelation, { reachable: geometry }: ToolHost) {
  const ways = (relationKind(relation.kind).dimension?.ways?.(relation, geometry) ?? []) as readonly Way[];
  const own = relationKind(relation.kind).way?.(relation);
  return { ways, at: ways.findIndex((way) => relationKind(relation.kind).way?.(way.relation) === own) };
}
interface Way {
  readonly title: string;
  readonly relation: SizedRelation;
}

/** Click one or two things, then where the number shall stand; then type it. */
export class SizeTool implements Tool {
  readonly name = 'size';
  preview: Preview = NO_PREVIEW;
  private picks: Id[] = [];
  private rim: Rim = 0;
  /** What is meant, by its words, where that was told by the key; else the place of the number tells. */
  private way: string | undefined;
  /** What would be made now. */
  private shown: SizedRelation | undefined;

  constructor(
    private readonly host: SizeHost,
    picks: readonly Id[] = [],
  ) {
    this.picks = [...picks];
  }

  get hint(): string {
    if (this.picks.length === 0) return 'Click a line, a circle, or two things.';
    const { ways, at } = this.shown ? waysOf(this.shown, this.host) : { ways: [], at: -1 };
    const way = at < 0 ? '' : ` ${ways[at]!.title}; W: ${ways[(at + 1) % ways.length]!.title}.`;
    const axis = this.picks.length === 1 ? ' Shift: an axis.' : '';
    return `Click where the number shall stand, or a second thing.${axis}${this.round() ? ' R: to the rim.' : ''}${way}`;
  }

  key(key: string): boolean {
    if (key === 'w' && this.shown) {
      const { ways, at } = waysOf(this.shown, this.host);
      if (ways.length === 0) return false;
      this.way = ways[(at + 1) % ways.length]!.title;
      this.shown = this.meant(this.shown);
      this.host.propose(this.shown);
      return true;
    }
    if (key !== 'r' || !this.round()) return false;
    this.rim = RIMS[(RIMS.indexOf(this.rim) + 1) % RIMS.length]!;
    return true;
  }

  /** Is something round among what is measured? */
  private round(): boolean {
    return this.picks.some((id) => this.host.reachable.roleOf(id) === 'circle');
  }

  move(pointer: PointerAt): void {
    const under = this.under(pointer);
    this.host.hover(under);
    const second = under !== undefined && this.picks.length === 1 ? [...this.picks, under] : this.picks;
    this.shown = this.sizeOf(second, pointer.at) ?? this.sizeOf(this.picks, pointer.at);
    this.host.propose(this.shown);
  }

  down(pointer: PointerAt): void {
    const under = this.under(pointer);
    const fresh = under !== undefined && !this.picks.includes(under);
    if (fresh && (this.picks.length === 0 || sizeFor(this.host, [...this.picks, under], pointer.at))) {
      this.picks = [...this.picks, under];
      this.host.select(this.picks, false);
      if (this.picks.length < 2) return;
      this.host.propose(this.sizeOf(this.picks, pointer.at));
      return;
    }
    const relation = this.sizeOf(this.picks, pointer.at);
    if (!relation) return;
    this.escape();
    this.host.ask(relation);
  }

  private sizeOf(picks: readonly Id[], at: Vec2): SizedRelation | undefined {
    const size = sizeFor(this.host, picks, at, this.rim);
    return size && this.meant(size);
  }

  private meant(size: SizedRelation): SizedRelation {
    return waysOf(size, this.host).ways.find(({ title }) => title === this.way)?.relation ?? size;
  }

  /** Numbers often stand near an axis: as the second thing that is taken only when asked for. */
  private under(pointer: PointerAt): Id | undefined {
    const id = reached(this.host, pointer);
    const isAxis = id !== undefined && id !== ORIGIN && isBuiltIn(id);
    return isAxis && this.picks.length === 1 && !pointer.add ? undefined : id;
  }

  escape(): boolean {
    const busy = this.picks.length > 0;
    this.picks = [];
    this.rim = 0;
    this.way = this.shown = undefined;
    this.host.propose(undefined);
    this.host.select([], false);
    return busy;
  }
}
