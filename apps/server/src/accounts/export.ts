import { Readable } from 'node:stream';
import { ZipFile } from 'yazl';
import type { Account } from '../db/models.ts';
import type { Files } from '../services/files.ts';
import { piecesOf } from '../services/pieces.ts';
import type { Projects } from '../services/projects.ts';
import type { Shelf } from '../services/shelf.ts';
import type { Sessions } from './sessions.ts';

interface Kept {
  readonly projects: Projects;
  readonly shelf: Shelf;
  readonly files: Files;
  readonly sessions: Sessions;
}

/**
 * All that an account keeps, as one zip that is made while it is read: what is known of the person, and of each project a zip
 * that can be imported again, with its log and its picture.
 */
export async function exportOf(account: Account, { projects, shelf, files, sessions }: Kept): Promise<Readable> {
  const zip = new ZipFile();
  const list = await shelf.list(account.id);
  const { name, createdAt, passwordAt, secondFactor } = account;
  const about = {
    ...{ name, createdAt, passwordAt, oneTimeCodes: secondFactor !== null },
    sessions: await sessions.list(account, undefined),
    projects: list,
  };
  zip.addBuffer(Buffer.from(JSON.stringify(about, null, 2)), 'account.json');
  for (const [k, project] of list.entries())
    add(
      zip,
      `${fileName(project.name, k)}.zip`,
      () => projectZip(account.id, project.id, { projects, shelf, files }),
      false,
    );
  return ended(zip);
}

async function projectZip(
  accountId: number,
  id: string,
  { projects, shelf, files }: Pick<Kept, 'projects' | 'shelf' | 'files'>,
): Promise<Readable> {
  const zip = new ZipFile();
  add(zip, 'project.json', async () => Readable.from(piecesOf((await projects.document(accountId, id)).document)));
  for (const hash of await files.list(accountId, id))
    add(zip, `files/${hash}`, async () => Readable.from([await files.read(accountId, hash)]));
  add(zip, 'log.jsonl', () => Promise.resolve(Readable.from(logLines(projects, accountId, id))));
  const picture = await shelf.picture(accountId, id).catch(() => undefined);
  if (picture) zip.addBuffer(picture, 'picture.png', { compress: false });
  return ended(zip);
}

/** The log a line an entry, the latest first: page by page, so that none of it is held. */
async function* logLines(projects: Projects, accountId: number, id: string): AsyncGenerator<string> {
  for (let before: number | undefined = Number.MAX_SAFE_INTEGER; before !== undefined;) {
    const { log, older } = await projects.log(accountId, id, before);
    for (const entry of [...log].reverse()) yield `${JSON.stringify(entry)}\n`;
    before = older;
  }
}

/** What is read only when its turn comes: never two at once. */
function add(zip: ZipFile, name: string, made: () => Promise<Readable>, compress = true): void {
  zip.addReadStreamLazy(name, { compress }, (then) => {
    made().then(
      (stream) => then(null, stream),
      (error: unknown) => then(error, Readable.from([])),
    );
  });
}

/** What fails while it is made ends the download: half a zip opens nowhere. */
function ended(zip: ZipFile): Readable {
  const stream = zip.outputStream as Readable;
  zip.on('error', (error) => stream.destroy(error as Error));
  zip.end();
  return stream;
}

/** A name that every system of files takes; numbered, as two projects may have one name. */
const fileName = (name: string, k: number): string =>
  `${String(k + 1).padStart(3, '0')} ${name.replace(/[^\p{L}\p{N} ._-]+/gu, '_').replace(/[ .]+$/, '')}`;
