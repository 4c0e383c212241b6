import { distance2, Geometry, type Vec2 } from '@helb/core';
import type { FigureRecipe } from './figure-recipes.ts';
import type { Snap } from './snapping.ts';
import {
  FigureMaker,
  guidesOf,
  NO_PREVIEW,
  snapFor,
  straight,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

/** A figure that a fixed number of clicks makes, each place snapped; what it will be is shown from the first click on. */
export class FigureTool implements Tool {
  preview: Preview = NO_PREVIEW;
  private readonly clicked: Snap[] = [];
  private last: PointerAt | undefined;

  constructor(
    private readonly host: ToolHost,
    readonly name: string,
    private readonly recipe: FigureRecipe,
    private count = recipe.count?.start ?? 0,
  ) {}

  get hint(): string {
    const { words, count } = this.recipe;
    const asked = words[this.clicked.length]!;
    return count ? `${asked} ${this.count} ${count.words}; + and - change it.` : asked;
  }

  key(key: string): boolean {
    const { count } = this.recipe;
    const by = ({ '+': 1, '=': 1, '-': -1 } as Record<string, number>)[key];
    if (!count || by === undefined) return false;
    this.count = Math.min(count.most, Math.max(count.least, this.count + by));
    if (this.last) this.move(this.last);
    return true;
  }

  move(pointer: PointerAt): void {
    this.last = pointer;
    const found = snapFor(this.host, pointer);
    const signs = { tags: tagsOf(found), guides: guidesOf(found) };
    const maker = this.made([...this.clicked, found]);
    if (maker) {
      const geometry = new Geometry({ ...this.host.geometry.entities, ...maker.entities });
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
    const found = snapFor(this.host, pointer);
    const before = this.clicked.at(-1);
    if (before && distance2(before.place, found.place) < pointer.reach / 4) return;
    const snaps = [...this.clicked, found];
    if (snaps.length < this.recipe.words.length) {
      this.clicked.push(found);
      return;
    }
    const maker = this.made(snaps);
    if (!maker) return;
    this.host.draw(maker.figure, this.recipe.what);
    this.escape();
  }

  escape(): boolean {
    const drawing = this.clicked.length > 0;
    this.clicked.length = 0;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  /** The figure that these places make; undefined while there are too few of them, or where they make none. */
  private made(snaps: readonly Snap[]): FigureMaker | undefined {
    if (snaps.length < this.recipe.words.length) return undefined;
    const maker = new FigureMaker(this.host.newId);
    return this.recipe.make(maker, snaps, this.count) ? maker : undefined;
  }
}
