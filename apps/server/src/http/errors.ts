import type { Context, Next } from 'koa';
import type { Logger } from 'pino';
import { BaseError, ConnectionError, DatabaseError, UniqueConstraintError } from 'sequelize';
import { ZodError } from 'zod';
import { Refusal } from '../services/refusal.ts';

/** Turns everything that is thrown into one answer: `{ message, ...facts }`. Faults are logged without anybody's data. */
export const answerErrors =
  (log: Logger) =>
  async (ctx: Context, next: Next): Promise<void> => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/'))
        throw new Refusal(404, 'There is nothing here.');
    } catch (error) {
      const { status, body } = answerTo(error);
      if (!(error instanceof Refusal) && status >= 500)
        log.error({ fault: faultOf(error), method: ctx.method, path: ctx.path, status }, 'request failed');
      ctx.status = status;
      ctx.body = body;
    }
  };

/**
 * What is logged of a fault. Errors of the database hold the statement with all that it was to write, in their message too:
 * of these only the code is told.
 */
export function faultOf(error: unknown): Record<string, unknown> {
  if (error instanceof BaseError) return { name: error.name, ...codeOf(error) };
  if (!(error instanceof Error)) return { name: typeof error };
  return { name: error.name, message: error.message.slice(0, 300), stack: error.stack?.split('\n').slice(1, 9) };
}

interface Cause {
  readonly code?: string;
  readonly errno?: number;
}
function codeOf(error: BaseError): Cause {
  const { code, errno } = (error as { original?: Cause }).original ?? {};
  return { ...(code !== undefined && { code }), ...(errno !== undefined && { errno }) };
}

interface Answer {
  readonly status: number;
  readonly body: Record<string, unknown>;
}
const answer = (status: number, message: string): Answer => ({ status, body: { message } });

/** What the database says, by its codes: whether it helps to try again. */
const DATABASE: readonly { readonly errnos: readonly number[]; readonly status: number; readonly message: string }[] = [
  // deadlock, and waiting for a lock
  { errnos: [1213, 1205], status: 503, message: 'Somebody else saves just now. It is tried again.' },
  // statement ended for its time
  { errnos: [1969, 3024, 1317], status: 503, message: 'The database is too slow just now. It is tried again.' },
  // disk full, table full, no space for temporary tables
  {
    errnos: [1021, 1114, 1041, 28],
    status: 507,
    message: 'The disk of the server is full. Tell whoever looks after it.',
  },
  // packet, value or row too large
  { errnos: [1153, 1406, 1118, 1301], status: 413, message: 'This is too large to be kept.' },
];

/** A reason may quote what was sent. */
const MOST_WORDS = 300;

function answerTo(error: unknown): Answer {
  if (error instanceof Refusal) return { status: error.status, body: { message: error.message, ...error.facts } };
  if (error instanceof ZodError) {
    const [wrong] = error.issues;
    const path = wrong!.path.join('.');
    const message = `${path ? `${path}: ` : ''}${wrong!.message}`.slice(0, MOST_WORDS);
    return { status: 422, body: { message: `${message}.`, path: path.slice(0, MOST_WORDS) } };
  }
  if (error instanceof UniqueConstraintError) return answer(409, 'This is there already.');
  if (error instanceof ConnectionError) return answer(503, 'The database does not answer just now.');
  if (error instanceof DatabaseError) {
    const { errno } = codeOf(error);
    const known = DATABASE.find(({ errnos }) => errno !== undefined && errnos.includes(errno));
    return known ? answer(known.status, known.message) : answer(503, 'The database does not answer just now.');
  }
  if (error instanceof BaseError) return answer(503, 'The database does not answer just now.');
  const status = (error as { status?: number }).status ?? 500;
  if (status >= 400 && status < 500) return answer(status, 'The request can not be understood.');
  return answer(500, 'Something went wrong in the server. Nothing was changed.');
}
