import { CLICKED_SIZES, relationKind, type Id, type SizedRelation, type Vec2 } from '@helb/core';
import { hit } from './select-tool.ts';
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
  const { geometry } = host;
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

/** Click one or two things, then where the number shall stand; then type it. */
export class SizeTool implements Tool {
  readonly name = 'size';
  preview: Preview = NO_PREVIEW;
  private picks: Id[] = [];
  private rim: Rim = 0;

  constructor(
    private readonly host: SizeHost,
    picks: readonly Id[] = [],
  ) {
    this.picks = [...picks];
  }

  get hint(): string {
    return this.picks.length === 0
      ? 'Click a line, a circle, or two things.'
      : `Click where the number shall stand, or a second thing.${this.round() ? ' R: to the rim.' : ''}`;
  }

  key(key: string): boolean {
    if (key !== 'r' || !this.round()) return false;
    this.rim = RIMS[(RIMS.indexOf(this.rim) + 1) % RIMS.length]!;
    return true;
  }

  /** Is something round among what is measured? */
  private round(): boolean {
    return this.picks.some((id) => this.host.geometry.roleOf(id) === 'circle');
  }

  move(pointer: PointerAt): void {
    const under = hit(this.host.geometry, pointer);
    this.host.hover(under);
    const second = under !== undefined && this.picks.length === 1 ? [...this.picks, under] : this.picks;
    this.host.propose(this.sizeOf(second, pointer.at) ?? this.sizeOf(this.picks, pointer.at));
  }

  down(pointer: PointerAt): void {
    const under = hit(this.host.geometry, pointer);
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

  private readonly sizeOf = (picks: readonly Id[], at: Vec2) => sizeFor(this.host, picks, at, this.rim);

  escape(): boolean {
    const busy = this.picks.length > 0;
    this.picks = [];
    this.rim = 0;
    this.host.propose(undefined);
    this.host.select([], false);
    return busy;
  }
}
