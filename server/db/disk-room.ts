import { statfs } from 'node:fs/promises';

/** Below this a write isn't begun: what it makes in the log and its files must fit, and so must closing well. */
export const FULL_BYTES = 64_000_000;
/** Below this somebody should make room. */
export const LITTLE_BYTES = 500_000_000;

export type RoomState = 'enough' | 'little' | 'full';

export interface Room {
  readonly folder: string;
  /** `null` where the disk doesn’t say. */
  readonly freeBytes: number | null;
  readonly state: RoomState;
}

/** How much is free on the disk that folder lies on, in bytes; `null` where it doesn’t say. */
export type FreeBytes = (folder: string) => Promise<number | null>;

const askDisk: FreeBytes = async (folder) => {
  try {
    const { bavail, bsize } = await statfs(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
};

/** What room a folder has to grow. Asking takes microseconds, so nothing is remembered. */
export async function roomOf(folder: string, freeBytes: FreeBytes = askDisk): Promise<Room> {
  const free = await freeBytes(folder);
  return {
    folder,
    freeBytes: free,
    state: free === null || free >= LITTLE_BYTES ? 'enough' : free >= FULL_BYTES ? 'little' : 'full',
  };
}

const inMb = (bytes: number): string => `${Math.floor(bytes / 1_000_000)} MB`;

/** Why nothing can be written just now and what to do; `undefined` where there is room. */
export const sayFull = ({ folder, freeBytes, state }: Room): string | undefined =>
  state === 'full'
    ? `The disk of ${folder} is full: ${inMb(freeBytes ?? 0)} are left, and ${inMb(FULL_BYTES)} are needed to write safely. Nothing was changed, and all can be read. Make room on that disk, then do it again; nothing has to be started anew.`
    : undefined;
