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
  /** Where it lies on the shelf. */
  readonly folder: string | null;
  /** When it goes for good: it was thrown away, and can be taken back until then. */
  readonly goesAt: string | null;
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

/** Who somebody is, shown once more before what can not be taken back; the code where one is asked for. */
export interface Proof {
  readonly name: string;
  readonly password: string;
  readonly code?: string | undefined;
}

export interface AccountCard {
  readonly name: string;
  readonly createdAt: string;
  readonly passwordAt: string | null;
  readonly secondFactor: boolean;
  readonly canHaveSecondFactor: boolean;
  /** Bytes. */
  readonly room: { readonly used: number; readonly most: number };
  readonly sessions: readonly SessionCard[];
}

export interface SessionCard {
  readonly id: string;
  readonly openedAt: string;
  readonly seenAt: string;
  readonly address: string;
  /** As the browser there calls itself. */
  readonly device: string;
  readonly isThis: boolean;
}

const call = <T>(method: string, path: string, body?: unknown): Promise<T> =>
  answerOf<T>(path, {
    method,
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    signal: AbortSignal.timeout(20_000),
  });

async function fetched(path: string, request: RequestInit): Promise<Response> {
  try {
    return await fetch(`/api${path}`, request);
  } catch {
    throw new OfflineError('The server does not answer.');
  }
}

async function answerOf<T>(path: string, request: RequestInit): Promise<T> {
  return read<T>(await fetched(path, request));
}

/** What was answered. @throws OfflineError or ApiError with the words of the server */
async function read<T>(response: Response): Promise<T> {
  const text = await response.text();
  const answer: unknown = text && response.headers.get('content-type')?.includes('json') ? JSON.parse(text) : undefined;
  if (response.status >= 500)
    throw new OfflineError((answer as { message?: string } | undefined)?.message ?? 'The server is in trouble.');
  if (response.ok) return answer as T;
  const { message = response.statusText, ...facts } = (answer ?? {}) as { message?: string; path?: unknown };
  throw new ApiError(response.status, wordsOf(message, facts.path), facts);
}

/** What a field is called when it is sent says nothing to people: its form stands before them. */
function wordsOf(message: string, path: unknown): string {
  if (typeof path !== 'string' || path.includes('.') || !message.startsWith(`${path}: `)) return message;
  const words = message.slice(path.length + 2);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** All that the page asks of the server. */
export const api = {
  whoAmI: () => call<{ name: string }>('GET', '/session'),
  signUp: (made: { name: string; newPassword: string }) => call<{ name: string }>('POST', '/account', made),
  signIn: (proof: Proof) => call<{ name: string }>('POST', '/session', proof),
  /** Comes back with a word of the administrator's; a code is asked for all the same where one was. */
  comeBack: (back: { name: string; recovery: string; newPassword: string }) =>
    call<{ name: string; wants?: 'code' }>('POST', '/session/recovery', back),
  signOut: () => call<void>('DELETE', '/session'),
  account: () => call<AccountCard>('GET', '/account'),
  changePassword: (proof: Proof & { newPassword: string }) => call<{ name: string }>('PUT', '/account/password', proof),
  offerCodes: () => call<{ secret: string; uri: string }>('POST', '/account/second-factor/new'),
  askForCodes: (proof: Proof & { secret: string }) => call<void>('PUT', '/account/second-factor', proof),
  dropCodes: (proof: Proof) => call<void>('DELETE', '/account/second-factor', proof),
  endSession: (id: string) => call<void>('DELETE', `/account/sessions/${id}`),
  signOutEverywhere: () => call<void>('DELETE', '/account/sessions'),
  /** A zip of all that they keep; it may be large, and takes as long as it takes. */
  async export(): Promise<Blob> {
    const response = await fetched('/account/export', {});
    return response.ok ? response.blob() : read<Blob>(response);
  },
  removeAccount: (proof: Proof) => call<void>('DELETE', '/account', proof),
  /** All that lie on the shelf, with those that were thrown away. */
  projects: () => call<ProjectCard[]>('GET', '/projects'),
  create: (from: { name: string } | { demo: true } | { document: unknown }) =>
    call<{ id: string }>('POST', '/projects', from),
  /** Another name, or another folder, without opening it. */
  change: (id: string, to: { name: string } | { folder: string | null }) => call<void>('PATCH', `/projects/${id}`, to),
  copy: (id: string) => call<{ id: string }>('POST', `/projects/${id}/copies`),
  throwAway: (id: string) => call<void>('PUT', `/projects/${id}/thrown`),
  takeBack: (id: string) => call<void>('DELETE', `/projects/${id}/thrown`),
  /** For good. */
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
  describe: (id: string, look: { findings: number; picture: string; whole: boolean }) =>
    call<void>('PUT', `/projects/${id}/look`, look),
};

export type Api = typeof api;
