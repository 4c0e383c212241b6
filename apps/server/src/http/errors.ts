import type { Context, Next } from 'koa';
import type { Logger } from 'pino';
import { BaseError } from 'sequelize';
import { ZodError } from 'zod';
import { Refusal } from '../services/refusal.ts';

/** Turns everything that is thrown into one answer: `{ message, ...facts }`. Faults are logged, their details kept. */
export const answerErrors =
  (log: Logger) =>
  async (ctx: Context, next: Next): Promise<void> => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/'))
        throw new Refusal(404, 'There is nothing here.');
    } catch (error) {
      const { status, body } = answerTo(error);
      if (status >= 500) log.error({ err: error, path: ctx.path }, 'request failed');
      ctx.status = status;
      ctx.body = body;
    }
  };

function answerTo(error: unknown): { status: number; body: Record<string, unknown> } {
  if (error instanceof Refusal) return { status: error.status, body: { message: error.message, ...error.facts } };
  if (error instanceof ZodError) {
    const [wrong] = error.issues;
    const path = wrong!.path.join('.');
    return { status: 422, body: { message: `${path ? `${path}: ` : ''}${wrong!.message}.`, path } };
  }
  if (error instanceof BaseError) return { status: 503, body: { message: 'The database does not answer just now.' } };
  const status = (error as { status?: number }).status ?? 500;
  if (status === 413) return { status, body: { message: 'This is larger than 9 MB.' } };
  if (status >= 400 && status < 500) return { status, body: { message: 'The request can not be read as JSON.' } };
  return { status: 500, body: { message: 'Something went wrong in the server. Nothing was changed.' } };
}
