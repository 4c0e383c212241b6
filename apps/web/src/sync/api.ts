import type { LogEntry, Project } from '@helb/core';

/** The server refused, with words for the person. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly facts: Record<string, unknown>,
  ) {
    super(message);
  }
}

/** The server can't be reached, or is in trouble of its own: worth trying again. */
export class OfflineError extends Error {}

export interface ProjectCard {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly changedAt: string;
  readonly findings: number | null;
  readonly hasPicture: boolean;
}

export interface OpenedProject {
  readonly id: string;
  readonly revision: number;
  readonly document: Project;
  /** The latest entries, as many as are sent at once. */
  readonly log: readonly LogEntry[];
  /** The revision before which there are older ones. */
  readonly older?: number | undefined;
}

export interface Changes {
  readonly revision: number;
  readonly changes: readonly LogEntry[];
  /** There is more since than is sent at once. */
  readonly more?: boolean;
}

const call = <T>(method: string, path: string, body?: unknown): Promise<T> =>
  answerOf<T>(path, {
    method,
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    signal: AbortSignal.timeout(20_000),
  });

async function answerOf<T>(path: string, request: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, request);
  } catch {
    throw new OfflineError('The server does not answer.');
  }
  const text = await response.text();
  const answer: unknown = text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : undefined;
  if (response.status >= 500)
    throw new OfflineError((answer as { message?: string } | undefined)?.message ?? 'The server is in trouble.');
  if (response.ok) return answer as T;
  const { message = response.statusText, ...facts } = (answer ?? {}) as { message?: string };
  throw new ApiError(response.status, message, facts);
}

/** All that the page asks of the server. */
export const api = {
  whoAmI: () => call<{ name: string }>('GET', '/session'),
  signUp: (credentials: { name: string; password: string }) => call<{ name: string }>('POST', '/account', credentials),
  signIn: (credentials: { name: string; password: string }) => call<{ name: string }>('POST', '/session', credentials),
  signOut: () => call<void>('DELETE', '/session'),
  projects: () => call<ProjectCard[]>('GET', '/projects'),
  create: (from: { name: string } | { demo: true } | { document: unknown }) =>
    call<{ id: string }>('POST', '/projects', from),
  remove: (id: string) => call<void>('DELETE', `/projects/${id}`),
  open: (id: string) => call<OpenedProject>('GET', `/projects/${id}`),
  /** The document alone, as it is now. */
  document: (id: string) => call<{ revision: number; document: Project }>('GET', `/projects/${id}/document`),
  since: (id: string, revision: number) => call<Changes>('GET', `/projects/${id}/changes?after=${revision}`),
  /** Older entries of the log, the latest last. */
  log: (id: string, before: number) =>
    call<Pick<OpenedProject, 'log' | 'older'>>('GET', `/projects/${id}/log?before=${before}`),
  save: (id: string, base: number, changes: readonly LogEntry[]) =>
    call<{ revision: number }>('POST', `/projects/${id}/changes`, { base, changes }),
  /** Keeps a file with a project; it is found by its hash. */
  keepFile: (id: string, file: Blob) =>
    answerOf<{ hash: string; size: number }>(`/projects/${id}/files`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: file,
      signal: AbortSignal.timeout(120_000),
    }),
  /** A file that is kept, by its hash. */
  async file(hash: string): Promise<Uint8Array> {
    const response = await fetch(`/api/files/${hash}`, { signal: AbortSignal.timeout(120_000) });
    if (!response.ok) throw new ApiError(response.status, 'a file that it brings in is not there any more', {});
    return new Uint8Array(await response.arrayBuffer());
  },
  /** Keeps a file of another project with this one too. */
  shareFile: (id: string, hash: string) => call<void>('PUT', `/projects/${id}/files/${hash}`),
  describe: (id: string, look: { findings: number; picture: string }) =>
    call<void>('PUT', `/projects/${id}/look`, look),
};

export type Api = typeof api;
