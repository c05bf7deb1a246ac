// Odd requests, several at a time: none may break the server, none may hold it up.
import { serveDemo } from '../serve.mjs';
import { oddCaller } from './odd-caller';

const AT_ONCE = 6;
/** A quiet machine answers anything within this. */
const SLOW_MS = 2000;

export interface FuzzReport {
  readonly asked: number;
  readonly byStatus: Readonly<Record<string, number>>;
  readonly broken: readonly string[];
  readonly slow: readonly string[];
  /** What the server logged as unexpected, and how often. */
  readonly reasons: readonly (readonly [string, number])[];
}

interface LoggedError {
  readonly message: string;
  readonly at?: readonly string[];
  readonly cause?: LoggedError;
}

/** The server's log, by what was wrong. */
function reasonsIn(said: string): [string, number][] {
  const counts = new Map<string, number>();
  for (const line of said.split('\n')) {
    if (!line.startsWith('{')) continue;
    const { err, msg } = JSON.parse(line) as { err?: LoggedError; msg?: string };
    if (msg !== 'unexpected') continue;
    const at = err?.at?.find((frame) => /(?:core|server|contract)\//.test(frame)) ?? '';
    const reason = `${err?.message.split('\n')[0]?.slice(0, 100)} ${err?.cause?.message ?? ''} ${at}`;
    counts.set(reason, (counts.get(reason) ?? 0) + 1);
  }
  return [...counts].sort((x, y) => y[1] - x[1]);
}

export async function fuzz(requests: number, seed: number): Promise<FuzzReport> {
  const server = await serveDemo({ LOG_LEVEL: 'error' });
  try {
    const ask = await oddCaller(server.base, seed);
    const byStatus: Record<string, number> = {};
    const [broken, slow]: [string[], string[]] = [[], []];
    let next = 0;
    const askOn = async (): Promise<void> => {
      while (next < requests) {
        const { said, status, cutOff, tookMs } = await ask((next += 1));
        if (status !== undefined) byStatus[status] = (byStatus[status] ?? 0) + 1;
        if (status !== undefined && status >= 500) broken.push(`${said} gave ${status}`);
        if (cutOff !== undefined) broken.push(`${said} was cut off: ${cutOff}`);
        if (tookMs > SLOW_MS) slow.push(`${said} took ${Math.round(tookMs)} ms`);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, askOn));
    return { asked: requests, byStatus, broken, slow, reasons: reasonsIn((await server.stop()).said) };
  } finally {
    await server.stop();
    server.remove();
  }
}
