/** A request that is refused for a reason that the person can act on; becomes an HTTP answer. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** More facts for the page, for example what has changed meanwhile. */
    readonly facts: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

/** Also the answer for what belongs to somebody else: its existence is not told. */
export const notFound = (): Refusal => new Refusal(404, 'There is no such project here, or it is not yours.');
