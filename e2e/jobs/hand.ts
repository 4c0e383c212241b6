import { execFileSync } from 'node:child_process';
import { appendFile } from 'node:fs/promises';
import { type Locator } from '@playwright/test';
import { Bench, expect, test } from '../house.ts';

type Vec2 = readonly [number, number];
type Vec3 = readonly [number, number, number];

/** A job card: what people need today for what the journey does of it, and the aim, in actions. */
interface Card {
  readonly name: string;
  readonly today: number;
  readonly aim: number;
}

/** A card as it was done. */
export interface DoneCard extends Card {
  /** Did it come to its end? */
  readonly isDone: boolean;
  readonly actions: number;
  /** Figures that came out as the card says, and those that did not. */
  readonly right: number;
  readonly wrong: number;
}

/**
 * A designer's hands on the built page: all that they do goes through here and is counted as the job cards count it. A
 * click, a drag, a key or command is one action; so is a typed number or word, with the key that takes it.
 */
export class Hand {
  actions = 0;
  /** Figures that came out as the card says, and those that did not. */
  private readonly figures = { right: 0, wrong: 0 };

  constructor(
    readonly bench: Bench,
    readonly card: Card,
  ) {}

  get page() {
    return this.bench.page;
  }

  /** Comes in with an empty project; that is no part of a card. */
  async begin(): Promise<void> {
    await this.bench.signUp();
    await this.bench.newProject();
  }

  async key(key: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(key);
  }

  /** A key that turns the view: the next click waits until it stands. */
  async turn(key: string): Promise<void> {
    this.actions++;
    await this.bench.turning(() => this.page.keyboard.press(key));
  }

  /** A word that turns the view. */
  async turnBy(word: Locator): Promise<void> {
    await this.bench.turning(() => this.on(word));
  }

  /** A number or a word where it is asked for, taken. */
  async type(text: string, takenBy = 'Enter'): Promise<void> {
    this.actions++;
    await this.page.keyboard.type(text);
    await this.page.keyboard.press(takenBy);
  }

  /** A number of what is on its way, with the pointer at a place of the open sketch. */
  async typeAt(at: Vec2, text: string): Promise<void> {
    await this.point(at);
    await this.type(text);
  }

  async on(thing: Locator): Promise<void> {
    this.actions++;
    await thing.click();
  }

  /** One of a list that opens: a word is clicked, then another. */
  async choose(word: string, option: string): Promise<void> {
    await this.on(this.page.getByRole('button', { name: new RegExp(`^${word}: `) }).last());
    await this.on(this.page.getByRole('option', { name: option, exact: true }));
  }

  async select(list: Locator, option: string): Promise<void> {
    this.actions += 2;
    await list.selectOption(option);
  }

  /** Points at a place of the open sketch, mm. */
  async point(at: Vec2): Promise<void> {
    // what was typed or related may bring what has grown back into the view
    let [before, aim] = [await this.aimed(at), await this.aimed(at)];
    while (Math.hypot(aim[0] - before[0], aim[1] - before[1]) > 1e-6) [before, aim] = [aim, await this.aimed(at)];
    await this.glide(aim);
  }

  /** Where a place of the sketch is, when the page has done what it was at. */
  private async aimed(at: Vec2): Promise<Vec2> {
    await this.page.evaluate(
      () =>
        new Promise<void>((done) => void requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)))),
    );
    await expect(this.bench.view).toHaveAttribute('data-moving', '0');
    return this.onPaper(at);
  }

  async click(at: Vec2): Promise<void> {
    this.actions++;
    await expect(this.bench.canvas).toBeVisible();
    await this.point(at);
    await this.press();
  }

  /** Clicks one more. */
  async clickToo(at: Vec2): Promise<void> {
    await this.page.keyboard.down('Shift');
    await this.click(at);
    await this.page.keyboard.up('Shift');
  }

  /** Turns the wheel where the pointer is: away from oneself is nearer. */
  async wheel(by: number): Promise<void> {
    this.actions++;
    await this.page.mouse.wheel(0, by);
    await this.bench.settleView();
  }

  /** Drags over the open sketch. */
  async drag(from: Vec2, to: Vec2): Promise<void> {
    this.actions++;
    await this.point(from);
    await this.page.mouse.down();
    await this.point(to);
    await this.page.mouse.up();
  }

  /** Points at a place in space, mm. */
  async hover(place: Vec3): Promise<void> {
    await this.looked();
    await this.glide(await this.inView(place));
  }

  /** Picks what lies at a place in space, mm. */
  async pick(place: Vec3): Promise<void> {
    this.actions++;
    await this.hover(place);
    await this.press();
  }

  /** Pulls what lies at a place in space to another. */
  async pull(from: Vec3, to: Vec3): Promise<void> {
    this.actions++;
    await this.hover(from);
    await this.page.mouse.down();
    await this.page.mouse.move(...(await this.inView(to)), { steps: 8 });
    await this.page.mouse.up();
    await this.looked();
  }

  /** Turns the view by hand, so many pixels to the right and down. */
  async orbit(right: number, down: number): Promise<void> {
    this.actions++;
    const { x, y, width, height } = (await this.bench.view.boundingBox())!;
    const [from, to] = [x + width / 4, y + height / 2];
    await this.page.mouse.move(from, to);
    await this.page.mouse.down({ button: 'right' });
    await this.page.mouse.move(from + right, to + down, { steps: 5 });
    await this.page.mouse.up({ button: 'right' });
    await this.bench.settleView();
  }

  /** Picks what lies behind others at a place in space: so many keys step to it. */
  async pickBehind(place: Vec3, steps: number): Promise<void> {
    await this.hover(place);
    for (let k = 0; k < steps; k++) await this.key('Tab');
    this.actions++;
    await this.press();
  }

  /** Picks what the list under the pointer calls so: a right click holds the list. What is called first needs none. */
  async pickListed(place: Vec3, words: RegExp, isMore = false): Promise<void> {
    await this.hover(place);
    const options = this.page.getByTestId('under').getByRole('option');
    await expect(options.filter({ hasText: words }).first()).toBeVisible();
    if (isMore) await this.page.keyboard.down('Shift');
    if (words.test((await options.first().innerText()).trim())) {
      this.actions++;
      await this.press();
    } else {
      this.actions++;
      await this.page.mouse.click(...(await this.inView(place)), { button: 'right' });
      await this.on(options.filter({ hasText: words }).first());
    }
    if (isMore) await this.page.keyboard.up('Shift');
  }

  /** The name of a datum in the view, where one is asked for. */
  datum(name: string): Locator {
    return this.page.locator('button.text-link', { hasText: exactly(name) });
  }

  /** Opens a sketch from the list of steps. */
  async open(sketch: string): Promise<void> {
    this.actions++;
    await this.bench.turning(() => this.page.getByTestId(`step-${sketch}`).getByText(sketch).first().dblclick());
  }

  /** Changes a size of the open sketch where it stands. */
  async size(shown: string, text: string): Promise<void> {
    await this.on(this.page.locator('text[data-size]').filter({ hasText: exactly(shown) }));
    await this.type(text);
  }

  /** Opens the sketch of a step, and changes one of its sizes where it stands. */
  async resize(sketch: string, shown: string, text: string): Promise<void> {
    await this.open(sketch);
    await this.size(shown, text);
    await this.turn('l');
  }

  /** Changes a number in the sentence of a step, in the list of steps. */
  async renumber(step: string, label: string, text: string): Promise<void> {
    await this.on(this.page.getByTestId(`step-${step}`).getByRole('button', { name: `${label}: ` }));
    await this.type(text);
  }

  /** Picks one more. */
  async pickToo(place: Vec3): Promise<void> {
    await this.page.keyboard.down('Shift');
    await this.pick(place);
    await this.page.keyboard.up('Shift');
  }

  /** A circle by its diameter, about a place of the open sketch; another where the tool is in hand already. */
  async circle(centre: Vec2, diameter: string): Promise<void> {
    await this.click(centre);
    await this.typeAt([centre[0] + OUT_mm, centre[1] + OUT_mm], diameter);
  }

  /** A rectangle about a place of the open sketch, by its width and height. */
  async centredRectangle(centre: Vec2, [width, height]: readonly [string, string]): Promise<void> {
    await this.key('i');
    await this.click(centre);
    await this.point([centre[0] + OUT_mm, centre[1] + OUT_mm]);
    await this.type(width, 'Tab');
    await this.type(height);
  }

  /** A size between two things of the open sketch; its number at a place where that tells what is meant. */
  async sizeBetween(one: Vec2, other: Vec2, text: string, at?: Vec2): Promise<void> {
    await this.key('n');
    for (const place of at ? [one, other, at] : [one, other]) await this.click(place);
    await this.type(text);
  }

  /** A new part, drawn among the others. */
  async newPart(name: string): Promise<void> {
    await this.on(this.page.getByRole('tab', { name: 'Parts' }));
    await this.on(this.page.getByRole('button', { name: '+ new part' }));
    await this.type(name);
    await expect(this.page.getByTestId('part-name')).toHaveText(name);
    // the others come into the view
    await this.looked();
  }

  /** Another name for the part on the bench. */
  async callPart(name: string): Promise<void> {
    await this.on(this.page.getByTestId('part-name').getByRole('button'));
    await this.type(name);
  }

  /** Closes the sketch and cuts it away, as far as it is told, else through everything. */
  async cut(depth?: string): Promise<void> {
    await this.turn('l');
    await this.key('x');
    await this.key('r');
    if (depth === undefined) await this.key('e');
    else await this.type(depth);
  }

  /** Goes to a part from wherever one is. */
  async part(name: string): Promise<void> {
    await this.on(this.page.getByRole('tab', { name: 'Parts' }));
    await this.on(this.page.getByTitle(`Edit ${name}`));
  }

  /** Closes the sketch and extrudes it. */
  async extrude(distance: string): Promise<void> {
    await this.turn('l');
    await this.key('x');
    await this.type(distance);
  }

  /** What is read off the page: no action. `right` within a share of the figure, or of 1. */
  async reads(what: string, read: () => Promise<number | undefined>, right: number, within = 3e-6): Promise<void> {
    const isRight = (now: number | undefined) =>
      now !== undefined && Math.abs(now - right) <= within * Math.max(1, Math.abs(right));
    let now: number | undefined;
    await expect
      .poll(async () => isRight((now = await read())), { timeout: 60_000 })
      .toBe(true)
      .catch(() => undefined);
    this.figures[isRight(now) ? 'right' : 'wrong']++;
    expect.soft(isRight(now), `${this.card.name}: ${what} is ${now}, not ${right}`).toBe(true);
  }

  /** A number of a figure of the part on the desk, the first if it is not told which. */
  figure =
    (name: string, at = 0) =>
    () =>
      this.numberOf(this.bench.figure(name), at);
  /** A number of a figure of all parts together. */
  whole =
    (name: string, at = 0) =>
    () =>
      this.numberOf(this.page.getByTestId(`whole-${name}`), at);

  /** How many freedoms a placement has left, as the list of them tells. */
  freedoms = (placement: string) => async () => {
    const rows = this.page.getByRole('list', { name: 'Placements' }).getByRole('listitem');
    const row = rows.filter({ has: this.page.getByText(placement, { exact: true }) });
    return Number(/(\d+)\s*$/.exec(await row.innerText())?.[1]);
  };

  /** What the sizes of the open sketch whose words begin so come to, one of them. */
  size_mm =
    (begun: string, at = 0) =>
    async () => {
      const shown = await this.page.locator('text[data-size]').allTextContents();
      const found = shown.filter((text) => text.startsWith(begun))[at];
      return found === undefined ? undefined : Number(found.slice(begun.length));
    };

  /** What is read off what is picked. */
  reading =
    (name: string, at = 0) =>
    () =>
      this.numberOf(this.page.getByTestId(`reading-${name}`), at);

  private async numberOf(figure: Locator, at: number): Promise<number | undefined> {
    return (await figure.count()) === 0 ? undefined : numbersIn(await figure.innerText())[at];
  }

  /** The work is done, as far as people's actions were counted: what follows are the changes of the card. */
  changes(): void {
    this.made = this.actions;
  }
  private made: number | undefined;

  /** Writes down what was done, for `./helb bench hand`. */
  async told(isDone: boolean): Promise<void> {
    const { HELB_HAND: file } = process.env;
    const told: DoneCard = { ...this.card, isDone, actions: this.made ?? this.actions, ...this.figures };
    if (file) await appendFile(file, `${JSON.stringify(told)}\n`);
  }

  /** Waits as somebody does who looks: until what was asked for is built, and the view stands still. */
  private async looked(): Promise<void> {
    const busy = this.page.getByText('building', { exact: true });
    let still = 0;
    await expect
      .poll(async () => (still = (await busy.count()) === 0 ? still + 1 : 0), { intervals: [100], timeout: 60_000 })
      .toBeGreaterThan(5);
    await this.bench.settleView();
  }

  private async glide([x, y]: Vec2): Promise<void> {
    await this.page.mouse.move(x - 4, y - 3);
    await this.page.mouse.move(x, y);
  }

  private async press(): Promise<void> {
    await this.page.mouse.down();
    await this.page.mouse.up();
  }

  private async onPaper([x, y]: Vec2): Promise<Vec2> {
    const told = await this.bench.canvas.getAttribute('data-frame');
    const frame = JSON.parse(told!) as { readonly origin: Vec3; readonly x: Vec3; readonly y: Vec3 };
    const place = [0, 1, 2].map((k) => frame.origin[k]! + x * frame.x[k]! + y * frame.y[k]!);
    return this.inView(place as unknown as Vec3);
  }

  private async inView(place: Vec3): Promise<Vec2> {
    const { view } = this.bench;
    const [origin, ...ends] = JSON.parse((await view.getAttribute('data-seen'))!) as [Vec2, Vec2, Vec2, Vec2];
    const box = (await view.boundingBox())!;
    const along = (k: 0 | 1) => ends.reduce((sum, end, n) => sum + place[n]! * (end[k] - origin[k]), origin[k]);
    return [box.x + along(0), box.y + along(1)];
  }
}

/** Well off the place where something begins, mm. */
const OUT_mm = 3;

const exactly = (text: string): RegExp => new RegExp(`^\\s*${text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\s*$`);
const numbersIn = (text: string): number[] => (text.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);

/** Of the cards a quarter is done each time, in turn with the commits; the bench does them all. */
const QUARTERS = 4;
const turn = (): number => {
  try {
    return Number(execFileSync('git', ['rev-list', '--count', 'HEAD'], { encoding: 'utf8' })) % QUARTERS;
  } catch {
    // no history here
    return 0;
  }
};
const isDue = ({ name }: Card): boolean =>
  process.env['HELB_HAND'] !== undefined || Number.parseInt(name, 10) % QUARTERS === turn();

/** A journey of a card: `hand` counts. */
export const job = (card: Card, does: (hand: Hand) => Promise<void>): void =>
  test(`card ${card.name}`, async ({ bench }) => {
    test.skip(!isDue(card), 'it is not its turn');
    test.setTimeout(600_000);
    const hand = new Hand(bench, card);
    await hand.begin();
    let isDone = false;
    try {
      await does(hand);
      isDone = true;
    } finally {
      await hand.told(isDone);
    }
  });
