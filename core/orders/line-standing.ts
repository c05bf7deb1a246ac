import { worded } from '../words/worded';
import type { Goods } from './goods';

/** Where a line of an order stands, the way it goes. */
export const LINE_STATES = ['toDye', 'inWork', 'onShelf', 'ready', 'handedOver'] as const;
/** One of `LINE_STATES`. */
export type LineState = (typeof LINE_STATES)[number];

/** As people say it. */
export const LINE_STATE_LABELS: Readonly<Record<LineState, string>> = worded(() => ({
  toDye: $localize`to dye`,
  inWork: $localize`in work`,
  onShelf: $localize`on the shelf`,
  ready: $localize`ready`,
  handedOver: $localize`handed over`,
}));

/** A line of an order, as far as it claims pieces. */
export interface ClaimingLine {
  readonly lineId: string;
  readonly pieces: number;
  /** The lots meant for it. */
  readonly lotIds: readonly string[];
}

/** A lot that lines claim pieces of: what of it is still to be finished and counted. */
export interface ClaimedLot {
  readonly lotId: string;
  readonly pieces: number;
  /** Nothing more will come of it: cancelled or refused. */
  readonly isOver: boolean;
}

/** How many pieces of a line are where. They add up to what was ordered, or more where more was handed over. */
export interface LineStanding {
  readonly lineId: string;
  readonly state: LineState;
  readonly handedOver: number;
  readonly setAside: number;
  /** Lie on the shelf, and nobody before it in the row needs them. */
  readonly onShelf: number;
  /** Are still being dyed for it. */
  readonly inWork: number;
  /** Nothing is meant for them. */
  readonly toDye: number;
}

/**
 * Where each line stands. What lies on the shelf of a lot, and what is still to come of it, goes to the lines it is
 * meant for in the order they are given: one lot serves several, and none of its pieces twice.
 * @param lines those that were promised first before the others
 */
export function standLines(
  lines: readonly ClaimingLine[],
  lots: readonly ClaimedLot[],
  goods: Goods,
): readonly LineStanding[] {
  const onShelf = new Map<string, number>();
  const toCome = new Map(lots.map((l) => [l.lotId, l.isOver ? 0 : l.pieces]));
  for (const g of goods.groups) {
    onShelf.set(g.lotId, (onShelf.get(g.lotId) ?? 0) + g.onShelf);
    toCome.set(g.lotId, Math.max(0, (toCome.get(g.lotId) ?? 0) - g.came));
  }
  const claim = (from: Map<string, number>, lotIds: readonly string[], wanted: number): number => {
    let left = wanted;
    for (const lotId of lotIds) {
      const taken = Math.min(left, from.get(lotId) ?? 0);
      from.set(lotId, (from.get(lotId) ?? 0) - taken);
      left -= taken;
    }
    return wanted - left;
  };
  return lines.map(({ lineId, pieces, lotIds }) => {
    const own = goods.lines.filter((l) => l.lineId === lineId);
    const handedOver = own.reduce((sum, l) => sum + l.handedOver, 0);
    const setAside = own.reduce((sum, l) => sum + l.setAside, 0);
    const open = Math.max(0, pieces - handedOver - setAside);
    const shelf = claim(onShelf, lotIds, open);
    const inWork = claim(toCome, lotIds, open - shelf);
    const toDye = open - shelf - inWork;
    return { lineId, state: stateOf(), handedOver, setAside, onShelf: shelf, inWork, toDye };

    function stateOf(): LineState {
      if (handedOver >= pieces) return 'handedOver';
      if (open === 0) return 'ready';
      if (toDye > 0) return 'toDye';
      return inWork > 0 ? 'inWork' : 'onShelf';
    }
  });
}

/** An order stands where its line furthest back stands. `undefined` where it has no line. */
export function standOrder(states: readonly LineState[]): LineState | undefined {
  return LINE_STATES.find((state) => states.includes(state));
}
