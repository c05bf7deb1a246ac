// The disk filled at random moments under four clients, and room made again. Needs a small disk of its own: a file
// system in memory, which only an administrator can put in place.
import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { seeded } from '../../core/photo/seeded';
import { serve, temporaryFolder } from '../serve.mjs';
import type { Faults } from './clients';
import { House } from './clients';

const DISK_MB = 400;

export interface FullReport extends Faults {
  fills: number;
  acknowledged: number;
  /** How often the program ended with its reason and was started again. */
  ended: number;
  /** How often it went on by itself. */
  recovered: number;
  reasons: readonly string[];
  said: readonly string[];
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** @returns what was counted; `undefined` where no small disk can be made */
export async function fullDisk(times: number, seed: number): Promise<FullReport | undefined> {
  const random = seeded(seed);
  const { folder, remove } = temporaryFolder('full');
  const disk = join(folder, 'disk');
  mkdirSync(disk);
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'tmpfs', disk], { stdio: 'ignore' });
  } catch {
    remove();
    return undefined;
  }
  const [data, balloon] = [join(disk, 'data'), join(disk, 'balloon')];
  const house = new House();
  const reasons: string[] = [];
  const counted = { fills: 0, ended: 0, recovered: 0 };
  let server = await serve(data, { COPIES_DIR: join(folder, 'copies') });
  let hasEnded = false;
  let isDone = false;
  const watch = (of: typeof server): void => {
    hasEnded = false;
    void of.ended.then(({ code, said }) => {
      hasEnded = true;
      if (!isDone) reasons.push(`${code}: ${said.trim().split('\n').at(-1)?.slice(0, 200) ?? ''}`);
    });
  };
  watch(server);
  try {
    await house.furnish(server.base);
    for (let n = 0; n < times; n += 1) {
      const { base } = server;
      const siege = house.besiege(base, seed * 7919 + n);
      await pause(20 + random.uniform() * 500);
      // Slowly so that it is seen coming, or at once in the middle of a write, to the last byte.
      fill(balloon, disk, random.uniform() < 0.5 ? 30_000_000 : 0);
      await pause(300 + random.uniform() * 700);
      const reading = hasEnded ? undefined : await fetch(`${base}/api/auth`).catch(() => undefined);
      if (!hasEnded && reading?.status !== 200) house.said.push('nothing could be read while the disk was full');
      rmSync(balloon, { force: true });
      await pause(200);
      await siege.lift();
      if (hasEnded) {
        counted.ended += 1;
        server = await serve(data, { COPIES_DIR: join(folder, 'copies') });
        watch(server);
      } else counted.recovered += 1;
      counted.fills += 1;
      await house.check(server.base);
    }
    await house.checkEach(server.base);
    return { ...counted, acknowledged: house.acknowledged.size, ...house.faults, reasons, said: house.said };
  } finally {
    isDone = true;
    await server.stop('SIGKILL');
    execFileSync('umount', [disk]);
    remove();
  }
}

/** Writes a file until so many bytes are left. */
function fill(path: string, disk: string, leftBytes: number): void {
  const { bavail, bsize } = statfsSync(disk);
  const piece = Buffer.alloc(4_000_000, 1);
  let room = bavail * bsize - leftBytes;
  try {
    while (room > 0) {
      writeFileSync(path, room < piece.length ? piece.subarray(0, room) : piece, { flag: 'a' });
      room -= piece.length;
    }
  } catch {
    // Others wrote meanwhile: it is full.
  }
}
