import { v7 } from 'uuid';

/** A time-ordered id (RFC 9562, version 7) for what the server itself adds. */
export function uuidv7(now: Date): string {
  return v7({ msecs: now.getTime() });
}
