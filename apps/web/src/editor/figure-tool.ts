import { distance2, Geometry, issue, NUMBER, type Action, type Issue, type Vec2 } from '@helb/core';
import { holdTyped, namingOf, type DrawnSize, type TypedSizes } from './drawn-sizes.ts';
import type { FigureRecipe } from './figure-recipes.ts';
import { anchorSigns, placedBy, placingSizes } from './placing.ts';
import type { Snap } from './snapping.ts';
import {
  exactly,
  FigureMaker,
  guidesOf,
  keptAt,
  NO_PREVIEW,
  orTyped,
  snapFor,
  straight,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

/** Directions nearer than this, rad, are meant as one. */
const LIKE = 0.15;

/** A figure that a fixed number of clicks makes, each place snapped; what it will be is shown from the first click on. */
export class FigureTool implements Tool {
  preview: Preview = NO_PREVIEW;
  private readonly clicked: Snap[] = [];
  private last: PointerAt | undefined;
  /** The numbers that were typed, click by click; those of the click to come last. */
  private typed: TypedSizes[] = [];

  constructor(
    private readonly host: ToolHost,
    readonly name: string,
    private readonly recipe: FigureRecipe,
    private count = recipe.count?.start ?? 0,
  ) {}

  get hint(): string {
    const { words, count } = this.recipe;
    const asked = this.isBusy ? words[this.clicked.length]! : orTyped(words[0]!);
    return count ? `${asked} ${this.count} ${count.words}; + and - change it.` : asked;
  }

  key(key: string): boolean {
    const { count } = this.recipe;
    const by = ({ '+': 1, '=': 1, '-': -1 } as Record<string, number>)[key];
    // before it is begun = goes before the name of a number
    if (!count || by === undefined || (key === '=' && !this.isBusy)) return false;
    this.count = Math.min(count.most, Math.max(count.least, this.count + by));
    if (this.last) this.move(this.last);
    return true;
  }

  get isBusy(): boolean {
    return this.clicked.length > 0;
  }

  get takesNames(): boolean {
    return this.isBusy;
  }

  /** The numbers of the click to come; of a figure with a count, that is the last of them. */
  get sizes(): readonly DrawnSize[] {
    const { recipe, clicks, places, last } = this;
    if (!this.isBusy) return last ? placingSizes(this.host.anchoring.anchor, this.find(last).place, last) : [];
    const numbers = last && clicks?.read(places, this.find(last).place);
    if (!clicks || !numbers) return [];
    const told = clicks.asked.map((asked, k) => ({ ...asked, now: numbers[k]! }));
    if (!recipe.count) return told;
    const { words, least: min, most: max } = recipe.count;
    return [...told, { prompt: words, asks: NUMBER, now: this.count, within: { min, max } }];
  }

  keep(typed: TypedSizes): Issue | undefined {
    this.typed[this.clicked.length] = typed;
    if (!this.isBusy) {
      if (this.last) this.move(this.last);
      return undefined;
    }
    const count = this.recipe.count && typed[this.clicks?.asked.length ?? 0];
    if (count) this.count = count.size;
    if (!this.last) return undefined;
    this.move(this.last);
    const text = typed.find((size) => size)?.text ?? '';
    if (!this.aimed(this.last.at)) return issue('size.short', { text });
    const snaps = [...this.clicked, this.find(this.last)];
    return snaps.length < this.recipe.words.length || this.made(snaps) ? undefined : issue('size.none', { text });
  }

  get naming(): readonly Action[] {
    return this.typed.slice(0, this.clicked.length).flatMap(namingOf);
  }

  /** The place that the typed numbers tell, where the pointer decides the rest; undefined where there is none. */
  private aimed(at: Vec2): Vec2 | undefined {
    const typed = this.typed[this.clicked.length] ?? [];
    return this.clicks?.aim(
      this.places,
      at,
      this.clicks.asked.map((_, k) => typed[k]?.size),
    );
  }

  private get clicks() {
    return this.clicked.length > 0 ? this.recipe.sizes?.[this.clicked.length] : undefined;
  }

  private get places(): readonly Vec2[] {
    return this.clicked.map(({ place }) => place);
  }

  /** Of each number of the click to come, is it typed? */
  private get told(): readonly boolean[] {
    const typed = this.typed[this.clicked.length] ?? [];
    return this.clicks?.asked.map((_, k) => typed[k] !== undefined) ?? [];
  }

  /** What a click would be: where the typed numbers put it, else what is guessed. */
  private find(pointer: PointerAt): Snap {
    const found = snapFor(this.host, pointer);
    if (!this.isBusy) return placedBy(this.host.anchoring.anchor, found, pointer, this.typed[0] ?? []);
    const { told } = this;
    if (!told.includes(true)) return found;
    const aim = (at: Vec2): Vec2 => this.aimed(at) ?? at;
    // where all is typed the pointer tells only to which side, or in which direction: a guess may lie in another
    const plain = aim(pointer.at);
    const far = distance2(plain, this.clicked.at(-1)!.place);
    const isLike = this.clicks?.isTurned && distance2(aim(found.place), plain) < LIKE * far;
    return told.includes(false) || isLike ? keptAt(this.host, found, aim, pointer) : exactly(this.host, plain);
  }

  move(pointer: PointerAt): void {
    this.last = pointer;
    const found = this.find(pointer);
    if (!this.isBusy && found.point !== undefined) this.host.anchoring.touch(found.point);
    const counted = this.isBusy || found.apart ? [] : anchorSigns(this.host.anchoring.anchor);
    const signs = { tags: [...tagsOf(found), ...counted], guides: guidesOf(found) };
    const maker = this.made([...this.clicked, found]);
    if (maker) {
      const geometry = new Geometry({ ...this.host.reachable.entities, ...maker.entities });
      this.preview = {
        ...NO_PREVIEW,
        pieces: Object.keys(maker.entities).flatMap((id) => geometry.pieces(id)),
        ...signs,
      };
      return;
    }
    const places: Vec2[] = [...this.clicked, found].map(({ place }) => place);
    this.preview = { ...NO_PREVIEW, pieces: places.slice(1).map((place, k) => straight(places[k]!, place)), ...signs };
  }

  down(pointer: PointerAt): void {
    this.last = pointer;
    const found = this.find(pointer);
    const before = this.clicked.at(-1);
    if (before && !this.told.includes(true) && distance2(before.place, found.place) < pointer.reach / 4) return;
    const snaps = [...this.clicked, found];
    if (snaps.length < this.recipe.words.length) {
      this.clicked.push(found);
      return;
    }
    const maker = this.made(snaps);
    if (!maker) return;
    this.host.draw(maker.figure, this.recipe.what, this.typed.flatMap(namingOf));
    this.escape();
  }

  escape(): boolean {
    const drawing = this.isBusy;
    this.clicked.length = this.typed.length = 0;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  /** The figure that these places make; undefined while there are too few of them, or where they make none. */
  private made(snaps: readonly Snap[]): FigureMaker | undefined {
    if (snaps.length < this.recipe.words.length) return undefined;
    const maker = new FigureMaker(this.host.newId);
    const unsized = this.recipe.make(maker, snaps, this.count);
    if (!unsized) return undefined;
    // the dimensions stand in the order of the numbers, click by click
    const typed = snaps.flatMap((_, k) => {
      const asked = this.recipe.sizes?.[k]?.asked ?? [];
      return asked.map((__, n) => this.typed[k]?.[n]);
    });
    holdTyped(maker, unsized, typed);
    return maker;
  }
}
