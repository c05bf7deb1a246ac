import type { Vessel } from '../../bath/vessel';

/** A vessel and the most pieces it takes. */
export interface VesselRoom {
  readonly vessel: Vessel;
  /** Whole pieces of this lot that the vessel takes. */
  readonly roomForPieces: number;
}

/** A vessel and the pieces it got. */
export interface BatchShare {
  readonly vessel: Vessel;
  readonly pieces: number;
}

/** Pieces over vessels; or the most that fit. */
export type SplitResult =
  | {
      readonly ok: true;
      readonly shares: readonly BatchShare[];
      /** Pieces in the fullest less the emptiest batch. */ readonly spreadPieces: number;
    }
  | { readonly ok: false; readonly maxPieces: number };

/**
 * Splits whole pieces over the vessels there are, one batch to a vessel.
 * First as few batches as can hold the lot (one bath is one shade), then the batches as alike in pieces as can be,
 * then the smallest vessels that hold them. Every batch has the same liquor ratio and doses by construction.
 *
 * Why it is exact: the k roomiest vessels hold a lot whenever any k vessels do, and filling them to a common level,
 * each up to its room, gives the least spread of any k, because more room never widens it. Room is nested (a piece
 * count that fits a vessel fits every roomier one), so giving the largest batch the smallest vessel that takes it
 * wastes least. Compared with exhaustive search in the tests.
 *
 * @param pieces whole pieces, 1 or more
 * @returns the shares, largest batch first; or the most pieces that all vessels together would take
 */
export function splitBatches(pieces: number, rooms: readonly VesselRoom[]): SplitResult {
  if (!Number.isInteger(pieces) || pieces < 1)
    throw new RangeError(`pieces must be a whole number of 1 or more, got ${pieces}`);
  const usable = rooms
    .filter((r) => r.roomForPieces > 0)
    .sort((a, b) => b.roomForPieces - a.roomForPieces || b.vessel.workingMl - a.vessel.workingMl);
  const maxPieces = usable.reduce((sum, r) => sum + r.roomForPieces, 0);
  if (pieces > maxPieces) return { ok: false, maxPieces };

  let batches = 0;
  for (let held = 0; held < pieces; batches += 1) held += usable[batches]?.roomForPieces ?? 0;

  const sizes = fillToLevel(
    pieces,
    usable.slice(0, batches).map((r) => r.roomForPieces),
  ).sort((a, b) => b - a);
  const free = [...usable];
  const shares = sizes.map((size) => {
    let smallest = -1;
    for (let i = 0; i < free.length && (free[i]?.roomForPieces ?? 0) >= size; i += 1) smallest = i;
    const [room] = free.splice(smallest, 1);
    if (!room) throw new Error('a batch without a vessel: the rooms are not nested');
    return { vessel: room.vessel, pieces: size };
  });
  return { ok: true, shares, spreadPieces: (sizes[0] ?? 0) - (sizes.at(-1) ?? 0) };
}

/**
 * Shares pieces over vessels, each the same share unless its room is less. Smallest room first, so that what it can't
 * take is passed on.
 */
function fillToLevel(pieces: number, rooms: readonly number[]): number[] {
  const ascending = [...rooms].sort((a, b) => a - b);
  let left = pieces;
  return ascending.map((room, i) => {
    const share = Math.min(room, Math.floor(left / (ascending.length - i)));
    left -= share;
    return share;
  });
}
