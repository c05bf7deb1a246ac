import type { Vessel } from '../bath/vessel';
import type { PlannedBatch } from './lot-plan';
import type { LiquorOf } from './bath-liquor';
import { bathLiquor } from './bath-liquor';

/** What of a batch goes through a bath. */
export interface BatchShare {
  readonly batch: number;
  readonly pieces: number;
  readonly wofG: number;
  readonly displacedMl: number;
}

/** A vessel and what goes into it, in how many turns. */
export interface Filling {
  readonly vessel: Vessel;
  readonly shares: readonly BatchShare[];
  readonly turns: number;
}

/** Sums one number over shares. */
export const add = (shares: readonly BatchShare[], of: (s: BatchShare) => number): number =>
  shares.reduce((sum, s) => sum + of(s), 0);

/** Room that shares need in a bath, ml. */
export const room = (shares: readonly BatchShare[], bath: LiquorOf): number =>
  bathLiquor(
    bath,
    add(shares, (s) => s.wofG),
  ).value + add(shares, (s) => s.displacedMl);

/**
 * Where a bath that is not the dye bath is done: as few fillings as hold all batches, since one bath treats them
 * alike; a batch stays whole where any vessel takes it. What no vessel takes at once is done in several turns in the
 * roomiest. Its own vessel is used for a batch alone, where that is allowed, so that nothing is poured over without
 * need.
 */
export function fillVessels(
  shares: readonly BatchShare[],
  batches: readonly PlannedBatch[],
  bath: LiquorOf,
  vessels: readonly Vessel[],
): Filling[] {
  const roomiest = [...vessels].sort((a, b) => b.workingMl - a.workingMl);
  const largestFirst = [...shares].sort((a, b) => b.wofG - a.wofG || a.batch - b.batch);
  for (let k = 1; k < shares.length; k += 1) {
    const bins = roomiest.slice(0, k).map((vessel) => ({ vessel, shares: [] as BatchShare[] }));
    const placed = largestFirst.every((share) => {
      const bin = bins.find((b) => room([...b.shares, share], bath) <= b.vessel.workingMl);
      bin?.shares.push(share);
      return bin !== undefined;
    });
    if (placed)
      return inSmallest(
        bins.filter((b) => b.shares.length > 0),
        roomiest,
        bath,
      );
  }
  const own = shares.map((share) => ({
    share,
    vessel: vessels.find((v) => v.id === batches.find((b) => b.number === share.batch)?.vesselId),
  }));
  if (own.every(({ share, vessel }) => vessel && room([share], bath) <= vessel.workingMl))
    return inTurns(
      own.map(({ share, vessel }) => ({ vessel: vessel as Vessel, share })),
      bath,
    );
  const free = [...roomiest];
  return inTurns(
    largestFirst.map((share) => {
      const fitting = free.filter((v) => v.workingMl >= room([share], bath));
      const vessel = fitting.at(-1) ?? (roomiest[0] as Vessel);
      if (fitting.length > 0) free.splice(free.indexOf(vessel), 1);
      return { vessel, share };
    }),
    bath,
  );
}

/** What came into the same vessel is done there in turns, never at once. */
function inTurns(
  placed: readonly { readonly vessel: Vessel; readonly share: BatchShare }[],
  bath: LiquorOf,
): Filling[] {
  const byVessel = new Map<Vessel, BatchShare[]>();
  for (const { vessel, share } of placed) byVessel.set(vessel, [...(byVessel.get(vessel) ?? []), share]);
  return [...byVessel]
    .map(([vessel, unsorted]) => {
      const shares = [...unsorted].sort((a, b) => a.batch - b.batch);
      const together = {
        batch: shares[0]?.batch ?? 0,
        pieces: add(shares, (s) => s.pieces),
        wofG: add(shares, (s) => s.wofG),
        displacedMl: add(shares, (s) => s.displacedMl),
      };
      return { vessel, shares, turns: Math.max(shares.length, turnsFor(together, bath, vessel.workingMl)) };
    })
    .sort((a, b) => (a.shares[0]?.batch ?? 0) - (b.shares[0]?.batch ?? 0));
}

/** Puts each bin into the smallest vessel that holds it. */
export function inSmallest(
  bins: readonly { vessel: Vessel; shares: BatchShare[] }[],
  vessels: readonly Vessel[],
  bath: LiquorOf,
): Filling[] {
  const free = [...vessels].sort((a, b) => a.workingMl - b.workingMl);
  return [...bins]
    .sort((a, b) => room(b.shares, bath) - room(a.shares, bath))
    .map(({ vessel, shares }) => {
      const at = free.findIndex((v) => v.workingMl >= room(shares, bath));
      const [smallest] = at === -1 ? [vessel] : free.splice(at, 1);
      return { vessel: smallest ?? vessel, shares: [...shares].sort((a, b) => a.batch - b.batch), turns: 1 };
    });
}

/** How many turns a share needs in a vessel: whole pieces only. */
export function turnsFor(share: BatchShare, bath: LiquorOf, workingMl: number): number {
  let turns = 1;
  while (
    turns < share.pieces &&
    bathLiquor(bath, share.wofG * largestTurn(share.pieces, turns)).value +
      share.displacedMl * largestTurn(share.pieces, turns) >
      workingMl
  )
    turns += 1;
  return turns;
}

/** The largest turn's share of the whole: pieces are not cut, so five in two turns are three and two. */
export const largestTurn = (pieces: number, turns: number): number => Math.ceil(pieces / turns) / pieces;
