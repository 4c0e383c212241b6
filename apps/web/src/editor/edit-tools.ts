import {
  ANGLE,
  chainFrom,
  copied,
  distanceFrom,
  EditBuilder,
  entityKind,
  extend,
  formatQuantity,
  Geometry,
  grownOffset,
  growingOffset,
  issue,
  LENGTH,
  mirrored,
  moved,
  NUMBER,
  offsetOf,
  ORIGIN,
  split,
  stretchUnder,
  sub2,
  trim,
  withPoints,
  type Action,
  type Issue,
  type Id,
  type Relations,
  type Result,
  type Scope,
  type Similarity,
  type SketchEdit,
  type Vec2,
} from '@helb/core';
import type { NumberAsked } from './asking.ts';
import type { EditMaker } from './sketch-editor.ts';
import { namingOf, polar, type DrawnSize, type TypedSize, type TypedSizes } from './drawn-sizes.ts';
import { hit } from './select-tool.ts';
import type { Snap } from './snapping.ts';
import {
  NO_PREVIEW,
  snapToDrawn,
  straight,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

interface EditHost extends ToolHost {
  readonly selection: ReadonlySet<Id>;
  readonly relations: Relations;
  readonly scope: Scope;
  select(ids: readonly Id[], add: boolean): void;
  hover(id: Id | undefined): void;
  /** One step back: the tool is put away. */
  escape(): boolean;
  /** Does an edit, after what is named for it; a refusal is told in words. */
  revise(what: string, make: EditMaker, naming?: readonly Action[]): Result<void>;
  tell(issue: Issue): void;
  /** Asks for a number, where the field shall stand, and what is to be done with it. */
  askNumber(asked: NumberAsked): void;
}

/** What is drawn of these, but for points. */
export const curvesIn = (geometry: Geometry, ids: readonly Id[]): Id[] =>
  ids.filter((id) => geometry.entities[id] && geometry.roleOf(id) !== 'point');

type ClickEdit = (builder: EditBuilder, id: Id, at: Vec2) => Result<SketchEdit>;

/** Edits the curve that is clicked, in the place where it is clicked; again and again until it is left. */
class ClickEditTool implements Tool {
  preview: Preview = NO_PREVIEW;

  constructor(
    private readonly host: EditHost,
    readonly name: string,
    readonly hint: string,
    private readonly edit: ClickEdit,
    private readonly shown: (host: EditHost, id: Id, at: Vec2) => Preview['pieces'],
  ) {}

  move(pointer: PointerAt): void {
    const id = this.curveAt(pointer);
    this.host.hover(id);
    this.preview = { ...NO_PREVIEW, pieces: id === undefined ? [] : this.shown(this.host, id, pointer.at) };
  }

  down(pointer: PointerAt): void {
    const id = this.curveAt(pointer);
    this.preview = NO_PREVIEW;
    if (id !== undefined) this.host.revise(this.name, (builder) => this.edit(builder, id, pointer.at));
  }

  escape(): boolean {
    this.preview = NO_PREVIEW;
    return false;
  }

  private curveAt(pointer: PointerAt): Id | undefined {
    const id = hit(this.host.geometry, pointer, 'curves');
    return id !== undefined && this.host.geometry.entities[id] ? id : undefined;
  }
}

const nothing = () => [];

export const trimTool = (host: EditHost): Tool =>
  new ClickEditTool(host, 'trim', 'Click the stretch that shall go.', trim, (editor, id, at) =>
    stretchUnder(editor.geometry, id, at),
  );
export const extendTool = (host: EditHost): Tool =>
  new ClickEditTool(host, 'extend', 'Click a line or an arc near the end that shall grow.', extend, nothing);
export const splitTool = (host: EditHost): Tool =>
  new ClickEditTool(host, 'split', 'Click where the curve shall be cut in two.', split, nothing);

/**
 * Curves beside others: what is selected, or the whole chain that is clicked; then the side, then the number. Where curves
 * run beside a part of the chain already, they go on beside the rest of it.
 */
export class OffsetTool implements Tool {
  readonly name = 'offset';
  preview: Preview = NO_PREVIEW;
  private chain: readonly Id[];
  private pointer: PointerAt | undefined;
  private typed: TypedSize | undefined;
  private isBoth = false;

  constructor(private readonly host: EditHost) {
    this.chain = curvesIn(host.geometry, [...host.selection]);
  }

  get isBusy(): boolean {
    return this.chain.length > 0;
  }

  get hint(): string {
    if (this.chain.length === 0) return 'Click a curve; its whole chain is taken.';
    if (this.growing) return 'Click: what runs beside it goes on. A distance that is typed begins another.';
    return `Click the side and about how far. B: ${this.isBoth ? 'one side' : 'both sides'}.`;
  }

  key(key: string): boolean {
    if (key !== 'b' || !this.isBusy) return false;
    this.isBoth = !this.isBoth;
    this.foresee();
    return true;
  }

  /** How far beside the chain the pointer is. */
  get sizes(): readonly DrawnSize[] {
    const { chain, pointer, host } = this;
    if (chain.length === 0 || !pointer || this.growing) return [];
    return [{ prompt: 'distance', asks: LENGTH, now: distanceFrom(host.geometry, chain, pointer.at) }];
  }

  keep([typed]: TypedSizes): undefined {
    this.typed = typed;
    this.foresee();
  }

  move(pointer: PointerAt): void {
    this.pointer = pointer;
    if (this.chain.length === 0) this.host.hover(hit(this.host.geometry, pointer, 'curves'));
    this.foresee();
  }

  down(pointer: PointerAt): void {
    const { geometry } = this.host;
    if (this.chain.length === 0) {
      const id = hit(geometry, pointer, 'curves');
      if (id === undefined || !geometry.entities[id]) return;
      this.chain = chainFrom(geometry, id);
      this.host.select(this.chain, false);
      return;
    }
    this.pointer = pointer;
    const { chain, typed, isBoth, growing } = this;
    this.escape();
    if (growing) return void this.host.revise('offset', (builder) => grownOffset(builder, growing, chain));
    const beside = (number: Omit<TypedSize, 'naming'>, naming: readonly Action[]) =>
      this.host.revise('offset', (builder) => offsetOf(builder, chain, pointer.at, number, isBoth), naming);
    if (typed) return void beside(typed, typed.naming);
    const far = distanceFrom(geometry, chain, pointer.at);
    this.host.askNumber({
      prompt: 'Offset distance',
      place: pointer.at,
      asks: LENGTH,
      text: formatQuantity({ amount: Math.max(0.1, far), dimension: LENGTH }, this.host.scope.unit, 1),
      take: (number) => beside(number, number.naming),
    });
  }

  escape(): boolean {
    const busy = this.isBusy;
    this.chain = [];
    this.typed = undefined;
    this.isBoth = false;
    this.preview = NO_PREVIEW;
    return busy;
  }

  /** What goes on, unless another distance is asked for. */
  private get growing() {
    const { host, chain, pointer, typed } = this;
    return typed || !pointer ? undefined : growingOffset(host.relations, host.geometry, chain, pointer.at);
  }

  private foresee(): void {
    const { host, chain, pointer, typed, isBoth, growing } = this;
    this.preview = NO_PREVIEW;
    if (chain.length === 0 || !pointer) return;
    const { geometry, relations } = host;
    let count = 0;
    const builder = new EditBuilder({ geometry, relations }, (prefix) => `${prefix} ahead ${++count}`);
    const size = typed?.size ?? distanceFrom(geometry, chain, pointer.at);
    const made = growing
      ? grownOffset(builder, growing, chain)
      : offsetOf(builder, chain, pointer.at, { text: '', size }, isBoth);
    if (!made.ok) return;
    const after = new Geometry({ ...geometry.entities, ...made.value.entities });
    const changed = (id: Id) => Object.hasOwn(made.value.entities, id);
    const shown = Object.keys(after.entities).filter((id) => changed(id) || after.ends(id).some(changed));
    const pieces = shown.flatMap((id) => after.pieces(id));
    this.preview = { ...NO_PREVIEW, pieces };
  }
}

const SHIFT = polar(1);
const STILL: Similarity = { about: [0, 0], angle: 0, scale: 1, shift: [0, 0] };

/** Moves what is selected, or a copy of it, from one place to another. */
export class ShiftTool implements Tool {
  readonly isBusy = true;
  preview: Preview = NO_PREVIEW;
  private from: Vec2 | undefined;
  private pointer: PointerAt | undefined;
  private typed: TypedSizes = [];

  constructor(
    private readonly host: EditHost,
    readonly name: 'move' | 'copy',
    private readonly chosen: readonly Id[] = [...host.selection],
  ) {}

  get hint(): string {
    if (this.chosen.length === 0) return 'Nothing is selected: Esc, select, then try again.';
    return this.from ? 'Click where to.' : 'Click from where.';
  }

  /** How far, and in which direction. */
  get sizes(): readonly DrawnSize[] {
    if (!this.from || !this.pointer) return [];
    const numbers = SHIFT.read([this.from], this.find(this.pointer).place)!;
    return numbers.map((now, k) => ({ ...SHIFT.asked[k]!, now }));
  }

  keep(typed: TypedSizes): undefined {
    this.typed = typed;
    if (this.pointer) this.move(this.pointer);
  }

  /** Where the typed numbers put it, else what is guessed. */
  private find(pointer: PointerAt): Snap {
    const found = snapToDrawn(this.host, pointer);
    const given = this.typed.map((size) => size?.size);
    if (!this.from || given.every((size) => size === undefined)) return found;
    return { place: SHIFT.aim([this.from], found.place, given)! };
  }

  move(pointer: PointerAt): void {
    this.pointer = pointer;
    const found = this.find(pointer);
    const pieces = this.from ? [straight(this.from, found.place), ...this.shifted(sub2(found.place, this.from))] : [];
    this.preview = { ...NO_PREVIEW, pieces, tags: tagsOf(found) };
  }

  down(pointer: PointerAt): void {
    this.pointer = pointer;
    const { place } = this.find(pointer);
    if (!this.from) {
      this.from = place;
      return;
    }
    const naming = namingOf(this.typed);
    const similarity = { ...STILL, shift: sub2(place, this.from) };
    if (this.name === 'copy') this.host.revise('copy', (builder) => copied(builder, this.chosen, similarity), naming);
    else carry(this.host, 'move', this.chosen, similarity, naming);
    this.escape();
  }

  escape(): boolean {
    const busy = this.from !== undefined;
    this.from = undefined;
    this.typed = [];
    this.preview = NO_PREVIEW;
    return busy;
  }

  /** What is chosen where it will be: the edit, made for the eye only. */
  private shifted(shift: Vec2): Preview['pieces'] {
    const builder = new EditBuilder({ geometry: this.host.geometry, relations: {} }, this.host.newId);
    copied(builder, this.chosen, { ...STILL, shift });
    const geometry = new Geometry(builder.entities);
    return Object.keys(builder.entities).flatMap((id) => geometry.pieces(id));
  }
}

/** Moves, turns or scales what is chosen itself; tells where relations hold it so that nothing has moved. */
function carry(
  host: EditHost,
  what: string,
  chosen: readonly Id[],
  similarity: Similarity,
  naming: readonly Action[] = [],
): Result<void> {
  const places = () => {
    const { geometry } = host;
    return withPoints(geometry.entities, chosen).flatMap((id) => [
      ...entityKind(geometry.entities[id]!.kind).unknowns(geometry.entities[id]!),
    ]);
  };
  const before = places();
  const done = host.revise(what, (builder) => moved(builder, chosen, similarity), naming);
  if (done.ok && places().every((place, k) => Math.abs(place - before[k]!) < 1e-6)) host.tell(issue('edit.held'));
  return done;
}

/** Mirrors the curves that are selected in a line. */
export const mirrorIn = (host: Pick<EditHost, 'selection' | 'geometry' | 'revise'>, line: Id): Result<void> =>
  host.revise('mirror', (builder) => mirrored(builder, curvesIn(host.geometry, [...host.selection]), line));

/** Mirrors what is selected in the line that is clicked: where the selection does not tell which. */
export class MirrorTool implements Tool {
  readonly name = 'mirror';
  readonly hint = 'Click the line to mirror in: an axis, a centre line, a side.';
  readonly isBusy = true;
  readonly preview: Preview = NO_PREVIEW;

  constructor(private readonly host: EditHost) {}

  move(pointer: PointerAt): void {
    this.host.hover(this.lineAt(pointer));
  }

  down(pointer: PointerAt): void {
    const line = this.lineAt(pointer);
    if (line !== undefined && mirrorIn(this.host, line).ok) this.host.escape();
  }

  escape(): boolean {
    return false;
  }

  private lineAt(pointer: PointerAt): Id | undefined {
    const id = hit(this.host.geometry, pointer, 'curves');
    return id !== undefined && this.host.geometry.roleOf(id) === 'line' ? id : undefined;
  }
}

/** Turns or scales what is selected about a place that is clicked; the number is typed. */
export class PivotTool implements Tool {
  readonly isBusy = true;
  preview: Preview = NO_PREVIEW;

  constructor(
    private readonly host: EditHost,
    readonly name: 'turn' | 'scale',
    private readonly chosen: readonly Id[] = [...host.selection],
  ) {}

  get hint(): string {
    if (this.chosen.length === 0) return 'Nothing is selected: Esc, select, then try again.';
    return this.name === 'turn' ? 'Click the place to turn about.' : 'Click the place that stays where it is.';
  }

  move(pointer: PointerAt): void {
    this.preview = { ...NO_PREVIEW, tags: tagsOf(snapToDrawn(this.host, pointer)) };
  }

  down(pointer: PointerAt): void {
    if (this.chosen.length === 0) return;
    const { place, point } = snapToDrawn(this.host, pointer);
    const about: Vec2 = point === ORIGIN ? [0, 0] : place;
    const turning = this.name === 'turn';
    this.host.askNumber({
      prompt: turning ? 'Angle' : 'Factor',
      place: about,
      asks: turning ? ANGLE : NUMBER,
      text: turning ? '90 deg' : '2',
      most: turning ? { size: 2 * Math.PI, issue: 'size.bounds' } : { size: 1000, issue: 'edit.factor' },
      take: ({ size, naming }) =>
        carry(
          this.host,
          this.name,
          this.chosen,
          { ...STILL, about, ...(turning ? { angle: size } : { scale: size }) },
          naming,
        ),
    });
  }

  escape(): boolean {
    this.preview = NO_PREVIEW;
    return false;
  }
}
