import { Worker } from 'node:worker_threads';
import { FULL_BYTES } from './disk-room';

const BEAT_MS = 500;

interface Watched {
  readonly beats: Int32Array;
  readonly folder: string;
  readonly patienceMs: number;
  readonly fullBytes: number;
}

/** Runs in a thread of its own from its own source, so nothing of this file is there but what it is given. */
function watch(): void {
  const { statfsSync, writeSync } = process.getBuiltinModule('node:fs');
  const { beats, folder, patienceMs, fullBytes } = process.getBuiltinModule('node:worker_threads')
    .workerData as Watched;
  let [last, sinceMs] = [-1, Date.now()];
  setInterval(() => {
    const beat = Atomics.load(beats, 0);
    if (beat !== last) [last, sinceMs] = [beat, Date.now()];
    if (Date.now() - sinceMs < patienceMs) return;
    const { bavail, bsize } = statfsSync(folder);
    if (bavail * bsize >= fullBytes) return;
    writeSync(
      2,
      `The disk of ${folder} is full, and the database stopped in the middle of a write. The program ends: what was acknowledged is on the disk. Make room, then start again.\n`,
    );
    process.kill(process.pid, 'SIGKILL');
  }, 250);
}

/**
 * PGlite that can’t write to its log neither answers nor lets anything else run in its thread, so a second one sees to
 * it that the program ends with the reason: where nothing ran for a while and the disk is full.
 * @returns what stops watching
 */
export function watchBlocked(
  folder: string,
  { patienceMs = 10_000, fullBytes = FULL_BYTES }: { patienceMs?: number; fullBytes?: number } = {},
): () => void {
  const beats = new Int32Array(new SharedArrayBuffer(4));
  const workerData: Watched = { beats, folder, patienceMs, fullBytes };
  const worker = new Worker(`(${watch.toString()})()`, { eval: true, workerData });
  worker.unref();
  const beat = setInterval(() => Atomics.add(beats, 0, 1), BEAT_MS);
  beat.unref();
  return () => {
    clearInterval(beat);
    void worker.terminate();
  };
}
