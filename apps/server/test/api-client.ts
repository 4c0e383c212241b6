/** What the API may answer; tests look at the fields that they expect. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- the shape is what each test is about to check
type Answer = any;

/** A person at the API, for tests: keeps the cookie. */
export class ApiClient {
  private cookie = '';

  constructor(readonly address: string) {}

  /** Goes on as somebody who has entered: at another server of the same database. */
  enter(other: ApiClient): void {
    this.cookie = other.cookie;
  }

  async call(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; headers: Headers; body: Answer; bytes: number }> {
    const response = await this.fetch(method, path, body, headers);
    const text = await response.text();
    return {
      status: response.status,
      headers: response.headers,
      bytes: text.length,
      body: text && response.headers.get('content-type')?.includes('json') ? (JSON.parse(text) as unknown) : text,
    };
  }

  /** The answer as it comes, not read yet. */
  async fetch(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Response> {
    const bytes = body instanceof Uint8Array ? body.slice() : undefined;
    const response = await fetch(`${this.address}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': bytes ? 'application/octet-stream' : 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: bytes ?? (typeof body === 'string' ? body : JSON.stringify(body)) }),
    });
    const [cookie] = response.headers.getSetCookie();
    if (cookie) this.cookie = cookie.split(';')[0]!;
    return response;
  }
}
