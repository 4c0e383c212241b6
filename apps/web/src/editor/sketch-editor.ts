import {
  EditBuilder,
  Geometry,
  isSized,
  ok,
  perform,
  played,
  readSizes,
  relationKind,
  relationsBetween,
  solved,
  valueScope,
  type Action,
  type Entities,
  type Figure,
  type Id,
  type Issue,
  type FreeMotion,
  type NewId,
  type Pattern,
  type Project,
  type Relation,
  type RelationName,
  type Result,
  type Scope,
  type SketchEdit,
  type SizedRelation,
  type Sizes,
  type SketchStep,
  type SolvedSketch,
  type Vec2,
} from '@helb/core';
import { Snapshots } from '../snapshots/snapshots.ts';
import type { EditorPort } from './editor-port.ts';
import { measureText, movedPlaces, type EditorState } from './editor-state.ts';
import { numberAsked, sizeAsked, tieOf, type Asking, type NumberAsked } from './asking.ts';
import { helpersOf } from './helpers.ts';
import { Lending } from './lending.ts';
import { Loans } from './projected-references.ts';
import { hit, SelectTool } from './select-tool.ts';
import { Anchoring } from './placing.ts';
import { SizeTyping } from './size-typing.ts';
import type { PointerAt, Tool } from './tool.ts';
import { USE_SELECTION, TOOLS, type ToolName } from './tools.ts';

const scopeOf = ({ values, unit }: Project): Scope => valueScope(Object.values(values), unit);

/** Puts an edit together from what is drawn, or says why not. */
export type EditMaker = (builder: EditBuilder) => Result<SketchEdit>;

/** Editing one sketch: the tool in hand, what is selected, what is shown but not kept yet. Knows no framework. */
export class SketchEditor extends Snapshots<EditorState> {
  readonly loans = new Loans(this);
  private readonly lending = new Lending(this);
  /** Numbers that are typed for what is on its way. */
  readonly typing = new SizeTyping(this);
  readonly anchoring = new Anchoring(() => this.reachable);
  tool: Tool = new SelectTool(this);
  selection: ReadonlySet<Id> = new Set();
  hovered: Id | undefined;
  /** What a sentence on the desk speaks of while the pointer is over it. */
  pointed: ReadonlySet<Id> = new Set();
  proposed: SizedRelation | undefined;
  asking: Asking | undefined;
  /** Relations that came with the last figure: guesses to be struck off. */
  lastGuesses: readonly Id[] = [];
  /** The motion that is being played. */
  playing: FreeMotion | undefined;
  /** Where the pointer was last. */
  last: PointerAt | undefined;
  private shown: Entities | undefined;
  private copies: { readonly of: Entities; readonly geometry: Geometry } | undefined;
  private cache: { readonly of: readonly unknown[]; readonly result: SolvedSketch } | undefined;

  constructor(
    readonly part: Id,
    readonly step: Id,
    readonly port: EditorPort,
  ) {
    super();
  }

  protected present(): EditorState {
    const { sketch, solved: now, tool } = this;
    const { spokenOf } = this;
    const lent = this.lending.among(spokenOf);
    const borrowed = { ...now.sources.borrowed, ...lent };
    const isLending = Object.keys(lent).length > 0;
    const geometry = isLending ? new Geometry({ ...this.geometry.entities, ...lent }) : this.geometry;
    return {
      ...{ step: this.step, sketch, relations: sketch.relations, solved: now, borrowed },
      lends: this.lending.wordsOf(spokenOf),
      ...{ geometry, copiesGeometry: this.copiesGeometry, unit: this.scope.unit },
      ...{ selection: this.selection, hovered: this.hovered, pointed: this.pointed, playing: this.playing },
      ...{ proposed: this.proposed, asking: this.asking, lastGuesses: this.lastGuesses },
      ...{ entry: this.typing.entry, at: this.last?.at },
      tool: {
        ...{ sizes: tool.sizes ?? [], isBusy: tool.isBusy ?? false },
        ...{ name: tool.name, hint: tool.hint, preview: tool.preview, offered: tool.offered, pointed: tool.pointed },
      },
    };
  }

  /** Something of it was changed from beside it. */
  changed(): void {
    this.publish();
  }

  /** Does actions on the document; what came of them is shown. */
  act(actions: readonly Action[]): Result<void> {
    const done = this.port.act([...this.lending.neededBy(actions), ...actions]);
    this.publish();
    return done;
  }

  /** Tells why something was refused, if it was. */
  told(done: Result<void>): Result<void> {
    if (!done.ok) this.port.told(done.issue);
    this.publish();
    return done;
  }

  /** What it stands on has changed outside: the document, or what it borrows. Nothing where the sketch is gone. */
  refresh(): void {
    if (this.port.project().parts[this.part]?.steps[this.step]) this.publish();
  }

  get sketch(): SketchStep {
    return this.sketchIn(this.port.project());
  }

  get scope(): Scope {
    return scopeOf(this.port.project());
  }

  /** The sketch as it is solved now; solved again only when it, a value or what it borrows has changed. */
  get solved(): SolvedSketch {
    const { values, unit } = this.port.project();
    const of = [this.sketch, values, unit, this.port.sources()];
    if (!this.cache || of.some((input, k) => input !== this.cache!.of[k]))
      this.cache = { of, result: solved(this.sketch, this.scope, this.loans.sourcesFor(this.sketch)) };
    return this.cache.result;
  }

  /** Entities that follow something outside. */
  get borrowed(): Entities {
    return this.solved.sources.borrowed;
  }

  get geometry(): Geometry {
    return this.shown ? new Geometry(this.shown) : this.solved.solution.geometry;
  }

  get reachable(): Geometry {
    return this.lending.with(this.geometry);
  }

  /** What is selected, pointed at, about to be sized or drawn to. */
  private get spokenOf(): Id[] {
    const { selection, hovered, proposed, tool } = this;
    const sized = proposed ? relationKind(proposed.kind).refs(proposed) : [];
    const guessed = tool.preview.tags.flatMap(({ of }) => of ?? []);
    return [...selection, ...(hovered === undefined ? [] : [hovered]), ...sized, ...guessed];
  }

  get relations() {
    return this.sketch.relations;
  }

  get sizes(): Sizes {
    return readSizes(this.relations, this.scope).sizes;
  }

  /** The diagonals that hold rectangles about their centres: construction, halved by a point, from corner to corner. */
  get helpers(): ReadonlySet<Id> {
    return helpersOf(this.sketch);
  }

  get underlay(): readonly (readonly Vec2[])[] {
    return this.port.underlay();
  }

  get newId(): NewId {
    return this.port.newId;
  }

  take(name: ToolName): void {
    if (name !== 'size') this.tool.escape();
    if (!USE_SELECTION.includes(name)) this.selection = new Set();
    this.anchoring.forget();
    this.tool = TOOLS[name](this);
    this.asking = undefined;
    this.typing.leave();
    this.publish();
  }

  pointer(kind: 'down' | 'move' | 'up', pointer: PointerAt): void {
    if (this.asking) return;
    this.last = pointer;
    // a click takes what was typed; a lone letter that names nothing was the key of another tool
    if (kind === 'down' && this.typing.entry) {
      const other = this.typing.letter && this.port.toolOf(this.typing.letter);
      if (!other) return void this.typing.take();
      this.take(other);
    }
    // the hand ends the play: it takes hold of what is really there
    if (kind === 'down' && this.playing) this.play(undefined);
    if (kind !== 'up' && !pointer.free && this.tool.name !== 'borrow') this.lending.reach(pointer);
    this.tool[kind]?.(pointer);
    this.publish();
  }

  /** Gives a key to the tool in hand; false if it has no meaning for it. */
  key(key: string): boolean {
    const taken = this.tool.key?.(key) ?? false;
    if (taken) this.publish();
    return taken || this.typing.key(key);
  }

  /** This of what the tool offers is meant. @param isTaken and taken, as by a click */
  choose(k: number, isTaken: boolean): void {
    this.tool.choose?.(k);
    if (isTaken && this.last) this.pointer('down', this.last);
    else this.publish();
  }

  /** One step back: the number, the half-made figure, the tool, the selection; false if there was nothing to leave. */
  escape(): boolean {
    const left = this.leave();
    this.publish();
    return left;
  }

  private leave(): boolean {
    if (this.typing.leave()) return true;
    if (this.asking) {
      this.asking = this.proposed = undefined;
      return true;
    }
    if (this.tool.escape()) return true;
    if (this.tool.name !== 'select') {
      this.tool = new SelectTool(this);
      return true;
    }
    const selected = this.selection.size > 0;
    this.selection = new Set();
    return selected;
  }

  select(ids: readonly Id[], add: boolean): void {
    const next = new Set(add ? this.selection : []);
    for (const id of ids) {
      if (add && next.has(id)) next.delete(id);
      else next.add(id);
    }
    this.selection = next;
    const [only, ...others] = ids;
    this.clickedLast = others.length === 0 && only !== undefined && next.has(only) ? only : undefined;
    this.publish();
  }
  /** What was selected by itself, after all else that is. */
  clickedLast: Id | undefined;

  hover(id: Id | undefined): void {
    if (this.hovered === id) return;
    this.hovered = id;
    this.publish();
  }

  pointAt(ids: readonly Id[]): void {
    this.pointed = new Set(ids);
    this.publish();
  }

  show(entities: Entities | undefined): void {
    this.shown = entities;
  }

  propose(relation: SizedRelation | undefined): void {
    this.proposed = relation;
  }

  /** Asks for the number of a dimension, with what it measures now to start from. */
  ask(relation: SizedRelation, id?: Id, begun?: string): void {
    this.proposed = id === undefined ? relation : undefined;
    this.asking = sizeAsked(this, relation, id, begun);
    this.publish();
  }

  /** Asks for a number that an edit needs. */
  askNumber(asked: NumberAsked): void {
    this.asking = numberAsked(this, asked);
    this.publish();
  }

  /** Takes the typed number; refused with its reason where it can't be. */
  answer(text: string): Result<void> {
    return this.asking ? this.taken(this.asking.take(text)) : ok(undefined);
  }

  private taken(done: Result<void>): Result<void> {
    if (done.ok) {
      // its number is what it was clicked for: the keys mean what they did before
      if (this.asking?.id !== undefined && this.selection.has(this.asking.id)) this.selection = new Set();
      this.asking = this.proposed = undefined;
    }
    this.publish();
    return done;
  }

  /** While a number is asked for, another dimension is clicked: both take one named value from now on. */
  tieTo(other: Id): Result<void> {
    const tie = tieOf(this, other);
    if (!tie) return ok(undefined);
    return this.taken(this.asking!.take(tie.name, tie.naming));
  }

  /** What a dimension measures now, in the project's unit. */
  measureText(relation: SizedRelation): string {
    return measureText(relation, { geometry: this.reachable, unit: this.scope.unit });
  }

  /** Lets a dimension only tell its measure, or hold it again. */
  setMeasuring(id: Id, on: boolean): Result<void> {
    const relation = this.relations[id];
    if (!relation || !isSized(relation)) return ok(undefined);
    const value = on ? {} : { value: this.measureText(relation) };
    const input = { part: this.part, step: this.step, relation: id, measuring: on, ...value };
    return this.actAndPlace([{ command: 'sketch.size', input }]);
  }

  /** Does an edit, after what is named for it, and keeps the solved places with it; a refusal is told in words. */
  revise(what: string, make: EditMaker, naming: readonly Action[] = []): Result<void> {
    const { geometry } = this.solved.solution;
    const made = make(new EditBuilder({ geometry, relations: this.relations, borrowed: this.borrowed }, this.newId));
    const done = made.ok ? this.actAndPlace([...naming, this.revising(what, made.value)]) : made;
    if (done.ok) this.selection = new Set([...this.selection].filter((id) => this.sketch.entities[id]));
    return this.told(done);
  }

  /** Tells why something was refused. */
  tell(issue: Issue): void {
    this.port.told(issue);
  }

  private revising(what: string, { entities, relations, remove }: SketchEdit): Action {
    const where = { part: this.part, step: this.step };
    // what is drawn is replaced from where it is solved, so that nothing jumps
    return {
      command: 'sketch.revise',
      input: { ...where, what, entities: { ...entities }, relations: { ...relations }, remove: [...remove] },
    };
  }

  /** Adds relations that were proposed; a refusal is told in words. */
  addRelations(what: string, relations: Readonly<Record<Id, Relation>>): Result<void> {
    const input = { part: this.part, step: this.step, what, entities: {}, relations: { ...relations } };
    return this.told(this.actAndPlace([{ command: 'sketch.draw', input }]));
  }

  addPattern(pattern: Pattern): Result<void> {
    const input = { part: this.part, step: this.step, id: this.newId('pt'), pattern };
    const done = this.act([{ command: 'sketch.pattern', input }]);
    if (done.ok) this.selection = new Set([input.id]);
    this.publish();
    return done;
  }

  patternAt(pointer: PointerAt): Id | undefined {
    const { copies } = this.solved;
    const id = Object.keys(copies).length > 0 ? hit(this.copiesGeometry, pointer, 'curves') : undefined;
    return id !== undefined && Object.hasOwn(copies, id) ? id.slice(0, id.indexOf('.')) : undefined;
  }

  /** The repetitions of patterns with what they stand on. */
  get copiesGeometry(): Geometry {
    const of = this.solved.copies;
    if (this.copies?.of !== of) this.copies = { of, geometry: new Geometry(of) };
    return this.copies.geometry;
  }

  /** Adds a figure, after what is named for it; guesses that would clash are left out, what was typed is not. */
  draw(figure: Figure, what: string, naming: readonly Action[] = [], goesOn = false): void {
    const project = this.after([...this.lending.neededBy(figure), ...naming]);
    const step = this.sketchIn(project);
    const entities = { ...step.entities, ...figure.entities };
    const next = { ...step, entities, relations: { ...step.relations, ...figure.relations } };
    const trial = solved(next, scopeOf(project), this.loans.sourcesFor(next));
    const bad = new Set(trial.solution.clash);
    const kept = Object.entries(figure.relations).filter(([id, relation]) => isSized(relation) || !bad.has(id));
    const relations = Object.fromEntries(kept);
    const input = { part: this.part, step: this.step, what, entities: { ...figure.entities }, relations };
    this.told(this.actAndPlace([...naming, { command: 'sketch.draw', input }]));
    const guesses = kept.flatMap(([id, relation]) => (isSized(relation) ? [] : [id]));
    this.lastGuesses = goesOn ? [...this.lastGuesses, ...guesses] : guesses;
  }

  /** The project as it is after some actions. */
  private after(actions: readonly Action[]): Project {
    const done = perform(this.port.project(), actions);
    return done.ok ? done.value.project : this.port.project();
  }

  private sketchIn = (project: Project): SketchStep => project.parts[this.part]!.steps[this.step] as SketchStep;

  relate(kind: RelationName): Result<void> {
    const picks = [...this.selection];
    const found = relationsBetween(kind, picks, this.reachable);
    const [first] = found;
    if (!first) return ok(undefined);
    if (isSized(first)) {
      this.ask(first);
      return ok(undefined);
    }
    const relations = Object.fromEntries(found.map((relation) => [this.newId('r'), relation]));
    const input = { part: this.part, step: this.step, what: kind, entities: {}, relations };
    const done = this.actAndPlace([{ command: 'sketch.draw', input }]);
    if (done.ok) this.selection = new Set();
    this.publish();
    return done;
  }

  erase(ids: readonly Id[] = [...this.selection]): Result<void> {
    const drawn = ids.filter((id) => this.sketch.entities[id] || this.relations[id] || this.sketch.patterns?.[id]);
    if (drawn.length === 0) return ok(undefined);
    this.selection = this.pointed = new Set();
    this.lastGuesses = this.lastGuesses.filter((id) => !drawn.includes(id));
    return this.act([{ command: 'sketch.erase', input: { part: this.part, step: this.step, ids: drawn } }]);
  }

  place(entities: Entities): void {
    const places = movedPlaces(entities, this.sketch.entities);
    this.act([{ command: 'sketch.place', input: { part: this.part, step: this.step, places } }]);
  }

  moveText(id: Id, at: readonly [number, number]): void {
    const input = { part: this.part, step: this.step, relation: id, at: [at[0], at[1]] as [number, number] };
    this.act([{ command: 'sketch.size', input }]);
  }

  /** Shows a moment of a motion that is still free; undefined ends the play. */
  play(motion: FreeMotion | undefined, amount = 0): void {
    this.playing = motion;
    this.shown = motion && played(this.solved.solution.geometry.entities, motion, amount);
    this.publish();
  }

  /** Why a dimension does not hold, or undefined. */
  troubleOf = (id: Id): Issue | undefined => this.solved.unread.get(id);

  /** Does actions and keeps the solved places with them, so that the next solve starts from what people see. */
  actAndPlace(actions: readonly Action[]): Result<void> {
    // the sentence that was pointed at may be gone with it
    this.pointed = new Set();
    const done = perform(this.port.project(), [...this.lending.neededBy(actions), ...actions]);
    if (!done.ok) return done;
    const { project } = done.value;
    const step = this.sketchIn(project);
    const after = solved(step, scopeOf(project), this.loans.sourcesFor(step));
    const places =
      after.solution.state === 'clashing' ? {} : movedPlaces(after.solution.geometry.entities, step.entities);
    if (Object.keys(places).length === 0) return this.act(actions);
    return this.act([...actions, { command: 'sketch.place', input: { part: this.part, step: this.step, places } }]);
  }
}
