import { pino, type Logger } from 'pino';
import { createStream } from 'rotating-file-stream';
import type { Config } from './config.ts';

/** What is written down, each kind for itself, none with anybody's data: who and what, never what it says. */
export interface Logs {
  /** What went wrong in the server. */
  readonly faults: Logger;
  readonly requests: Logger;
  /** Who came in, who could not, and who left. */
  readonly signIns: Logger;
  /** What was made, changed and removed. */
  readonly changes: Logger;
}

/** Files of a folder are begun anew at this size, and so many are kept. */
const FILE = { size: '10M', maxFiles: 10, compress: 'gzip' } as const;

/** Opens the logs: files of a folder where one is set; else to the output of the process. */
export function openLogs({ HELB_LOG, HELB_LOG_FOLDER }: Config): Logs {
  const open = (name: string, level: string): Logger =>
    HELB_LOG_FOLDER === undefined
      ? pino({ level, base: { log: name } })
      : pino({ level: 'info', base: null }, createStream(`${name}.log`, { path: HELB_LOG_FOLDER, ...FILE }));
  return {
    faults: open('faults', HELB_LOG),
    requests: open('requests', HELB_LOG),
    signIns: open('sign-ins', HELB_LOG),
    changes: open('changes', HELB_LOG),
  };
}
