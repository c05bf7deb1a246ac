import { join } from 'node:path';
import type { Logger } from 'pino';
import { multistream, pino } from 'pino';
import { createStream } from 'rotating-file-stream';

/** Of the log so much is kept: five files of five megabytes. */
const [FILE_SIZE, FILES] = ['5M', 5];
/** Nobody reads more of one line, and a body of fifty megabytes must not be one. */
const LONGEST_MESSAGE = 500;
const MOST_FRAMES = 25;

interface Told {
  readonly type: string;
  readonly message: string;
  readonly code?: string;
  readonly at?: readonly string[];
  readonly cause?: Told;
}

/**
 * What the log tells of an error: where it was, and never what was written. A database says in its errors what stood
 * in the row; of those the code is kept, and the message without what it quotes.
 */
export function tellError(error: unknown, depth = 0): Told {
  if (!(error instanceof Error)) return { type: typeof error, message: 'something was thrown that is no error' };
  const { code, severity } = error as { code?: unknown; severity?: unknown };
  const isOfDatabase = typeof severity === 'string' || error.message.startsWith('Failed query');
  const first = isOfDatabase ? (error.message.split('\nparams:')[0] ?? '') : error.message;
  const message = (isOfDatabase ? first.replace(/"[^"]*"|'[^']*'|\([^)]*\)=\([^)]*\)/g, '…') : first).slice(
    0,
    LONGEST_MESSAGE,
  );
  const at = (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, MOST_FRAMES)
    .map((line) => line.trim());
  return {
    type: error.name,
    message,
    ...(typeof code === 'string' ? { code } : {}),
    at,
    ...(error.cause !== undefined && depth < 3 ? { cause: tellError(error.cause, depth + 1) } : {}),
  };
}

/** The log: on the console, and in files that take turns in the data folder. */
export function openLog(level: string, dataDir: string): Logger {
  const files = createStream('vestigia.log', { path: join(dataDir, 'log'), size: FILE_SIZE, maxFiles: FILES });
  // A full disk ends no program for want of a line in the log.
  files.on('error', () => undefined);
  return pino(
    { level, serializers: { err: (error: unknown) => tellError(error) } },
    multistream([
      { level: 'trace', stream: process.stdout },
      { level: 'trace', stream: files },
    ]),
  );
}
