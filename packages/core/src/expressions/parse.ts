import { attempt, issue, IssueError, type Result } from '../result/index.ts';
import { tokenise, type Token } from './tokens.ts';

/** The tree of an expression. `literal` is a number as typed, with its unit if one stood there. */
export type Node =
  | Literal
  | { readonly type: 'name'; readonly name: string }
  | { readonly type: 'negate'; readonly of: Node }
  | { readonly type: 'binary'; readonly sign: string; readonly left: Node; readonly right: Node }
  | { readonly type: 'call'; readonly name: string; readonly arguments: readonly Node[] };

interface Literal {
  readonly type: 'literal';
  readonly amount: number;
  readonly unit?: string;
}

const FEET: ReadonlySet<string> = new Set(["'", 'ft']);
const INCHES: ReadonlySet<string> = new Set(['"', 'in']);
const MAX_DEPTH = 32;
const BINDING: Readonly<Record<string, number>> = { '+': 1, '-': 1, '*': 2, '/': 2, '^': 4 };
const NEGATION = 3;

/**
 * Parses by precedence climbing (Pratt 1973). Own rules beside the usual ones: `1 3/16 in`, `1-3/16 in` and `7/8 in` are
 * fractions of the unit, `1'-3 1/2"` are feet and inches; a unit stands directly behind its number or a bracket; names may
 * hold spaces. What can be read in two ways is refused.
 */
export const parse = (text: string): Result<Node> => attempt(() => new Parser(text).whole());

class Parser {
  private readonly tokens: readonly Token[];
  private at = 0;
  private depth = 0;

  constructor(private readonly text: string) {
    this.tokens = tokenise(text);
  }

  whole(): Node {
    if (this.tokens.length === 1) throw new IssueError(issue('expression.empty'));
    const node = this.expression(0);
    if (this.next().type === 'end') return node;
    const [before, after] = [this.text[this.next().at - 1] ?? '', this.text[this.next().at + 1] ?? ''];
    if (this.isSign(',') && /\d/.test(before) && /\d/.test(after))
      throw new IssueError(issue('expression.comma', { text: this.text, point: this.text.replace(',', '.') }));
    throw this.unexpected();
  }

  private next = (ahead = 0): Token => this.tokens[Math.min(this.at + ahead, this.tokens.length - 1)]!;

  private isSign = (sign: string, ahead = 0): boolean => {
    const token = this.next(ahead);
    return token.type === 'sign' && token.sign === sign;
  };

  private unexpected(): IssueError {
    const token = this.next();
    return new IssueError(
      issue('expression.unexpected', {
        what: token.type === 'end' ? 'the end' : `"${this.text.slice(token.at, this.next(1).at).trim()}"`,
        position: token.at + 1,
        text: this.text,
      }),
    );
  }

  private expression(least: number): Node {
    if (++this.depth > MAX_DEPTH) throw new IssueError(issue('expression.deep', { most: MAX_DEPTH }));
    let left = this.operand();
    for (;;) {
      const token = this.next();
      const binding = token.type === 'sign' ? BINDING[token.sign] : undefined;
      if (token.type !== 'sign' || binding === undefined || binding <= least) break;
      this.at++;
      // a ^ b ^ c is a ^ (b ^ c); all other operators group from the left
      const right = this.expression(token.sign === '^' ? binding - 1 : binding);
      left = { type: 'binary', sign: token.sign, left, right };
    }
    this.depth--;
    return left;
  }

  private operand(): Node {
    const token = this.next();
    if (token.type === 'number') return this.number();
    if (token.type === 'name') {
      this.at++;
      return this.isSign('(') ? this.call(token.name) : { type: 'name', name: token.name };
    }
    if (this.isSign('-')) {
      this.at++;
      return { type: 'negate', of: this.expression(NEGATION) };
    }
    if (this.isSign('+')) {
      this.at++;
      return this.expression(NEGATION);
    }
    if (this.isSign('(')) {
      this.at++;
      const inner = this.expression(0);
      this.expect(')');
      const unit = this.next();
      if (unit.type !== 'unit') return inner;
      this.at++;
      return { type: 'binary', sign: '*', left: inner, right: { type: 'literal', amount: 1, unit: unit.symbol } };
    }
    throw this.unexpected();
  }

  private number(): Node {
    const measured = this.measured();
    const inches = measured.unit === undefined || !FEET.has(measured.unit) ? undefined : this.inches();
    return inches ? { type: 'binary', sign: '+', left: measured, right: inches } : measured;
  }

  /** What follows feet: `1' 3"`, `1'-3 1/2"`. */
  private inches(): Literal | undefined {
    const ahead = this.isJoined('-') ? 1 : 0;
    if (this.next(ahead).type !== 'number') return undefined;
    const rest = this.tokens.slice(this.at + ahead);
    const length = rest.findIndex(
      (token) => token.type !== 'number' && !(token.type === 'sign' && '-/'.includes(token.sign)),
    );
    const unit = rest[length];
    if (length < 1 || unit?.type !== 'unit' || !INCHES.has(unit.symbol)) return undefined;
    this.at += ahead;
    return this.measured();
  }

  /** Does a sign stand between the tokens without any room on either side? */
  private isJoined(sign: string): boolean {
    const at = this.next().at;
    return this.isSign(sign) && /\S/.test(this.text[at - 1] ?? ' ') && /\S/.test(this.text[at + 1] ?? ' ');
  }

  /** `2-1/8`: with inches behind it two and an eighth; else it could as well be a difference. */
  private isDashed(): boolean {
    const [over, under] = [this.next(1), this.next(3)];
    const before = this.tokens[this.at - 1];
    if (!this.isJoined('-') || before?.type !== 'number' || !before.whole) return false;
    if (over.type !== 'number' || !over.whole || !this.isSign('/', 2) || under.type !== 'number' || !under.whole)
      return false;
    if (over.amount >= under.amount) return false;
    const unit = this.next(4);
    if (unit.type === 'unit' && INCHES.has(unit.symbol)) return true;
    throw new IssueError(issue('expression.dash', { whole: before.amount, part: `${over.amount}/${under.amount}` }));
  }

  private measured(): Literal {
    let amount = this.literal();
    const whole = this.next();
    const mixed = whole.type === 'number' && whole.whole && this.isSign('/', 1) && this.next(2).type === 'number';
    if (this.isDashed()) {
      this.at++;
      amount += this.fraction();
    } else if (mixed) amount += this.fraction();
    else if (this.isSign('/') && this.next(1).type === 'number' && this.next(2).type === 'unit') {
      this.at++;
      amount /= this.literal();
    }
    const unit = this.next();
    if (unit.type !== 'unit') return { type: 'literal', amount };
    this.at++;
    return { type: 'literal', amount, unit: unit.symbol };
  }

  private fraction(): number {
    const upper = this.literal();
    this.at++;
    return upper / this.literal();
  }

  private literal(): number {
    const token = this.next();
    if (token.type !== 'number') throw this.unexpected();
    this.at++;
    return token.amount;
  }

  private call(name: string): Node {
    this.at++;
    const values: Node[] = [];
    if (!this.isSign(')')) {
      values.push(this.expression(0));
      while (this.isSign(',')) {
        this.at++;
        values.push(this.expression(0));
      }
    }
    this.expect(')');
    return { type: 'call', name, arguments: values };
  }

  private expect(sign: string): void {
    if (!this.isSign(sign)) throw this.unexpected();
    this.at++;
  }
}

/** What each kind of node consists of; none for what stands by itself. */
const PARTS: { readonly [T in Node['type']]?: (node: Extract<Node, { type: T }>) => readonly Node[] } = {
  negate: ({ of }) => [of],
  binary: ({ left, right }) => [left, right],
  call: ({ arguments: all }) => all,
};

/** The names that an expression reads, each once, in reading order; functions and constants are not among them. */
export function namesIn(node: Node, constants: ReadonlySet<string>): string[] {
  const names = new Set<string>();
  const visit = (part: Node): void => {
    if (part.type === 'name' && !constants.has(part.name)) names.add(part.name);
    PARTS[part.type]?.(part as never).forEach(visit);
  };
  visit(node);
  return [...names];
}
