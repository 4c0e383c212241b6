import {
  entityKind,
  formatQuantity,
  Geometry,
  isSized,
  ok,
  perform,
  played,
  readSize,
  relationKind,
  RELATION_NAMES,
  solved,
  valueScope,
  type Action,
  type Entities,
  type Figure,
  type Id,
  type Issue,
  type Motion,
  type NewId,
  type Project,
  type Relation,
  type RelationName,
  type Result,
  type Scope,
  type SizedRelation,
  type Sizes,
  type SketchStep,
  type SolvedSketch,
} from '@helb/core';
import { ChainTool, TangentArcTool } from './chain-tool.ts';
import { FIGURE_RECIPES, type FigureName } from './figure-recipes.ts';
import { FigureTool } from './figure-tool.ts';
import { SelectTool } from './select-tool.ts';
import { SizeTool } from './size-tool.ts';
import { SplineTool } from './spline-tool.ts';
import type { PointerAt, Tool } from './tool.ts';
import { readTyped } from './typed-number.ts';

/** What the editor needs of the page. */
export interface EditorPort {
  project(): Project;
  act(actions: readonly Action[]): Result<void>;
  newId: NewId;
  /** Something to be shown has changed. */
  changed(): void;
}

/** A number that is being typed on the canvas: of a dimension that exists, or of one that is proposed. */
export interface Asking {
  readonly relation: SizedRelation;
  readonly id?: Id;
  readonly text: string;
}

type ToolMaker = (editor: SketchEditor) => Tool;

const FIGURE_TOOLS = Object.fromEntries(
  Object.entries(FIGURE_RECIPES).map(([name, recipe]): [string, ToolMaker] => [
    name,
    (editor) => new FigureTool(editor, name, recipe),
  ]),
) as Record<FigureName, ToolMaker>;

const TOOLS = {
  ...FIGURE_TOOLS,
  chain: (editor: SketchEditor) => new ChainTool(editor),
  'tangent arc': (editor: SketchEditor) => new TangentArcTool(editor),
  spline: (editor: SketchEditor) => new SplineTool(editor),
  size: (editor: SketchEditor) => new SizeTool(editor, [...editor.selection]),
  select: (editor: SketchEditor) => new SelectTool(editor),
} satisfies Record<string, ToolMaker>;
export type ToolName = keyof typeof TOOLS;

/** Editing one sketch: the tool in hand, what is selected, what is shown but not kept yet. Knows no framework. */
export class SketchEditor {
  tool: Tool = new SelectTool(this);
  selection: ReadonlySet<Id> = new Set();
  hovered: Id | undefined;
  proposed: SizedRelation | undefined;
  asking: Asking | undefined;
  /** Relations that came with the last figure: guesses to be struck off. */
  lastGuesses: readonly Id[] = [];
  /** The motion that is being played. */
  playing: Motion | undefined;
  private shown: Entities | undefined;
  private cache: { step: SketchStep; values: Project['values']; unit: string; result: SolvedSketch } | undefined;

  constructor(
    readonly part: Id,
    readonly step: Id,
    private readonly port: EditorPort,
  ) {}

  get sketch(): SketchStep {
    return this.port.project().parts[this.part]!.steps[this.step] as SketchStep;
  }

  get scope(): Scope {
    const { values, unit } = this.port.project();
    return valueScope(Object.values(values), unit);
  }

  /** The sketch as it is solved now; solved again only when it or a value has changed. */
  get solved(): SolvedSketch {
    const { values, unit } = this.port.project();
    const step = this.sketch;
    if (this.cache?.step !== step || this.cache.values !== values || this.cache.unit !== unit)
      this.cache = { step, values, unit, result: solved(step, this.scope) };
    return this.cache.result;
  }

  get geometry(): Geometry {
    return this.shown ? new Geometry(this.shown) : this.solved.solution.geometry;
  }

  get relations() {
    return this.sketch.relations;
  }

  get sizes(): Sizes {
    const sizes = new Map<Id, number>();
    for (const [id, relation] of Object.entries(this.relations)) {
      const size = isSized(relation) && readSize(relation, relation.value, this.scope);
      if (size && size.ok) sizes.set(id, size.value);
    }
    return sizes;
  }

  get newId(): NewId {
    return this.port.newId;
  }

  take(name: ToolName): void {
    if (name !== 'size') this.tool.escape();
    this.tool = TOOLS[name](this);
    this.asking = undefined;
    this.port.changed();
  }

  pointer(kind: 'down' | 'move' | 'up', pointer: PointerAt): void {
    if (this.asking) return;
    // the hand ends the play: it takes hold of what is really there
    if (kind === 'down' && this.playing) this.play(undefined);
    this.tool[kind]?.(pointer);
    this.port.changed();
  }

  /** Gives a key to the tool in hand; false if it has no meaning for it. */
  key(key: string): boolean {
    const taken = this.tool.key?.(key) ?? false;
    if (taken) this.port.changed();
    return taken;
  }

  /** One step back: the number, the half-made figure, the tool, the selection; false if there was nothing to leave. */
  escape(): boolean {
    const left = this.leave();
    this.port.changed();
    return left;
  }

  private leave(): boolean {
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
    this.port.changed();
  }

  hover(id: Id | undefined): void {
    this.hovered = id;
  }

  show(entities: Entities | undefined): void {
    this.shown = entities;
  }

  propose(relation: SizedRelation | undefined): void {
    this.proposed = relation;
  }

  /** Asks for the number of a dimension, with what it measures now to start from. */
  ask(relation: SizedRelation, id?: Id): void {
    const { asks, measure } = relationKind(relation.kind).dimension!;
    const { unit } = this.port.project();
    const measured = formatQuantity({ amount: measure(relation, this.geometry), dimension: asks }, unit);
    this.proposed = id === undefined ? relation : undefined;
    this.asking = { relation, text: id === undefined ? measured : relation.value, ...(id === undefined ? {} : { id }) };
    this.port.changed();
  }

  /** Takes the typed number; refused with its reason where it can't be. */
  answer(text: string): Result<void> {
    const { asking } = this;
    if (!asking) return ok(undefined);
    const typed = readTyped(text, this.port.project(), this.newId);
    if (!typed.ok) return typed;
    const { expression, naming } = typed.value;
    const named = perform(this.port.project(), naming);
    if (!named.ok) return named;
    const { values, unit } = named.value.project;
    const size = readSize(asking.relation, expression, valueScope(Object.values(values), unit));
    if (!size.ok) return size;
    const where = { part: this.part, step: this.step };
    const action: Action = asking.id
      ? { command: 'sketch.size', input: { ...where, relation: asking.id, value: expression } }
      : {
          command: 'sketch.draw',
          input: {
            ...where,
            what: relationKind(asking.relation.kind).title.toLowerCase(),
            entities: {},
            relations: { [this.newId('d')]: { ...asking.relation, value: expression } },
          },
        };
    const done = this.actAndPlace([...naming, action]);
    if (!done.ok) return done;
    this.asking = this.proposed = undefined;
    this.port.changed();
    return done;
  }

  /** Adds a figure; guesses that would clash are left out. */
  draw(figure: Figure, what: string): void {
    const step = this.sketch;
    const entities = { ...step.entities, ...figure.entities };
    const trial = solved({ ...step, entities, relations: { ...step.relations, ...figure.relations } }, this.scope);
    const bad = new Set(trial.solution.clash);
    const relations = Object.fromEntries(Object.entries(figure.relations).filter(([id]) => !bad.has(id)));
    const input = { part: this.part, step: this.step, what, entities: { ...figure.entities }, relations };
    this.actAndPlace([{ command: 'sketch.draw', input }]);
    this.lastGuesses = Object.keys(relations);
  }

  /** Kinds of relation that make sense for the selection. */
  get fitting(): RelationName[] {
    const picks = [...this.selection].filter((id) => !this.relations[id]);
    return picks.length === 0 ? [] : RELATION_NAMES.filter((kind) => relationKind(kind).fit(picks, this.geometry));
  }

  relate(kind: RelationName): Result<void> {
    const picks = [...this.selection];
    const relation: Relation | undefined = relationKind(kind).fit(picks, this.geometry);
    if (!relation) return ok(undefined);
    if (isSized(relation)) {
      this.ask(relation);
      return ok(undefined);
    }
    const id = this.newId('r');
    const input = { part: this.part, step: this.step, what: kind, entities: {}, relations: { [id]: relation } };
    const done = this.actAndPlace([{ command: 'sketch.draw', input }]);
    if (done.ok) this.selection = new Set();
    this.port.changed();
    return done;
  }

  erase(ids: readonly Id[] = [...this.selection]): Result<void> {
    const drawn = ids.filter((id) => this.sketch.entities[id] || this.relations[id]);
    if (drawn.length === 0) return ok(undefined);
    this.selection = new Set();
    this.lastGuesses = this.lastGuesses.filter((id) => !drawn.includes(id));
    return this.port.act([{ command: 'sketch.erase', input: { part: this.part, step: this.step, ids: drawn } }]);
  }

  toggleConstruction(): Result<void> {
    const ids = [...this.selection].filter((id) => {
      const entity = this.sketch.entities[id];
      return entity !== undefined && entity.kind !== 'point';
    });
    if (ids.length === 0) return ok(undefined);
    const on = !ids.every((id) => (this.sketch.entities[id] as { construction?: boolean }).construction);
    return this.port.act([{ command: 'sketch.construction', input: { part: this.part, step: this.step, ids, on } }]);
  }

  place(entities: Entities): void {
    this.port.act([
      { command: 'sketch.place', input: { part: this.part, step: this.step, places: this.placesOf(entities) } },
    ]);
  }

  moveText(id: Id, at: readonly [number, number]): void {
    this.port.act([
      { command: 'sketch.size', input: { part: this.part, step: this.step, relation: id, at: [at[0], at[1]] } },
    ]);
  }

  /** Shows a moment of a motion that is still free; undefined ends the play. */
  play(motion: Motion | undefined, amount = 0): void {
    this.playing = motion;
    this.shown = motion && played(this.solved.solution.geometry.entities, motion, amount);
    this.port.changed();
  }

  /** Why a dimension does not hold, or undefined. */
  troubleOf = (id: Id): Issue | undefined => this.solved.unread.get(id);

  /** Does actions and keeps the solved places with them, so that the next solve starts from what people see. */
  private actAndPlace(actions: readonly Action[]): Result<void> {
    const done = perform(this.port.project(), actions);
    if (!done.ok) return done;
    const { project } = done.value;
    const step = project.parts[this.part]!.steps[this.step] as SketchStep;
    const after = solved(step, valueScope(Object.values(project.values), project.unit));
    const places =
      after.solution.state === 'clashing' ? {} : this.placesOf(after.solution.geometry.entities, step.entities);
    if (Object.keys(places).length === 0) return this.port.act(actions);
    return this.port.act([
      ...actions,
      { command: 'sketch.place', input: { part: this.part, step: this.step, places } },
    ]);
  }

  /** Unknowns of the entities that are not where they are drawn. */
  private placesOf(entities: Entities, drawn: Entities = this.sketch.entities): Record<Id, number[]> {
    const places: Record<Id, number[]> = {};
    for (const [id, entity] of Object.entries(entities)) {
      const now = entityKind(entity.kind).unknowns(entity);
      const before = entityKind(drawn[id]!.kind).unknowns(drawn[id]!);
      if (now.some((value, k) => Math.abs(value - before[k]!) > 1e-9)) places[id] = [...now];
    }
    return places;
  }
}
