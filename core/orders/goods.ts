/** What may happen to finished pieces of a lot. */
export const GOODS_KINDS = ['came', 'setAside', 'putBack', 'handOver', 'cameBack', 'sold', 'gone'] as const;
/** One of `GOODS_KINDS`. */
export type GoodsKind = (typeof GOODS_KINDS)[number];

/** So many finished pieces of one base and part of a lot, and where they went. */
export interface GoodsMove {
  readonly id: string;
  readonly kind: GoodsKind;
  readonly lotId: string;
  /** Which of the lot's groups they are of; `null`: its only one. */
  readonly group: string | null;
  readonly pieces: number;
  /** The line of an order they are set aside for, handed over or came back from. */
  readonly lineId: string | null;
  /** Which set of the line they are in, from 1; `null` where it isn't in sets. */
  readonly set: number | null;
  /** The move that was a slip: together they are as if they had never been. */
  readonly reversesId: string | null;
}

/** Pieces of one group of a lot. */
export interface GoodsOfGroup {
  readonly lotId: string;
  readonly group: string | null;
  /** Finished and counted, in all. */
  readonly came: number;
  /** Still on the shelf, promised to nobody. */
  readonly onShelf: number;
  readonly setAside: number;
  /** With customers, by an order or without one. */
  readonly handedOver: number;
  /** Gone in another way. */
  readonly gone: number;
}

/** Pieces of one lot that lie ready for a line of an order, or went out on it. */
export interface GoodsOfLine {
  readonly lineId: string;
  readonly lotId: string;
  readonly group: string | null;
  readonly set: number | null;
  readonly setAside: number;
  readonly handedOver: number;
}

/** Where all finished pieces are. */
export interface Goods {
  readonly groups: readonly GoodsOfGroup[];
  readonly lines: readonly GoodsOfLine[];
}

type Counts = { came: number; onShelf: number; setAside: number; handedOver: number; gone: number };

/** What a move does: to the shelf, to what is set aside, to what is with customers, to what is gone. */
const DOES: Readonly<Record<GoodsKind, Partial<Counts>>> = {
  came: { came: 1, onShelf: 1 },
  setAside: { onShelf: -1, setAside: 1 },
  putBack: { onShelf: 1, setAside: -1 },
  handOver: { setAside: -1, handedOver: 1 },
  cameBack: { handedOver: -1, onShelf: 1 },
  sold: { onShelf: -1, handedOver: 1 },
  gone: { onShelf: -1, gone: 1 },
};

const groupKey = (m: { readonly lotId: string; readonly group: string | null }): string =>
  `${m.lotId} ${m.group ?? ''}`;
const lineKey = (m: {
  readonly lineId: string | null;
  readonly lotId: string;
  readonly group: string | null;
  readonly set: number | null;
}): string => `${m.lineId ?? ''} ${groupKey(m)} ${m.set ?? ''}`;

/** Moves that stand: without slips and what took them back. */
export function standingMoves<M extends { readonly id: string; readonly reversesId: string | null }>(
  moves: readonly M[],
): readonly M[] {
  const reversed = new Set(moves.flatMap((m) => (m.reversesId === null ? [] : [m.reversesId])));
  return moves.filter((m) => m.reversesId === null && !reversed.has(m.id));
}

/** Where all finished pieces are, by what happened to them. Pieces, in the order their first move came. */
export function foldGoods(moves: readonly GoodsMove[]): Goods {
  const groups = new Map<string, { -readonly [K in keyof GoodsOfGroup]: GoodsOfGroup[K] }>();
  const lines = new Map<string, { -readonly [K in keyof GoodsOfLine]: GoodsOfLine[K] }>();
  for (const { lotId, group, kind, lineId, set, pieces } of standingMoves(moves)) {
    const own = groups.get(groupKey({ lotId, group })) ?? {
      lotId,
      group,
      came: 0,
      onShelf: 0,
      setAside: 0,
      handedOver: 0,
      gone: 0,
    };
    const does = DOES[kind];
    for (const key of Object.keys(does) as (keyof Counts)[]) own[key] += (does[key] ?? 0) * pieces;
    groups.set(groupKey({ lotId, group }), own);
    if (lineId === null) continue;
    const key = lineKey({ lineId, lotId, group, set });
    const line = lines.get(key) ?? { lineId, lotId, group, set, setAside: 0, handedOver: 0 };
    line.setAside += (does.setAside ?? 0) * pieces;
    line.handedOver += (does.handedOver ?? 0) * pieces;
    lines.set(key, line);
  }
  return {
    groups: [...groups.values()],
    lines: [...lines.values()].filter((l) => l.setAside !== 0 || l.handedOver !== 0),
  };
}

/** Why pieces can't move so, as facts. */
export type GoodsRefusal =
  | { readonly code: 'moreThanLot'; readonly lot: string; readonly inLot: number; readonly came: number }
  | { readonly code: 'moreThanShelf'; readonly lot: string; readonly onShelf: number }
  | { readonly code: 'moreThanSetAside'; readonly lot: string; readonly setAside: number }
  | { readonly code: 'moreThanHandedOver'; readonly lot: string; readonly handedOver: number }
  | { readonly code: 'wentOn'; readonly lot: string };

/**
 * Why a move can't be, given all that happened before; `undefined` where it can. Nothing falls below nothing, and no
 * more comes from a lot than went into it.
 * @param lot its tag as people know it, and how many pieces of that group it has
 */
export function goodsRefusal(
  before: readonly GoodsMove[],
  move: GoodsMove,
  lot: { readonly tag: string; readonly pieces: number },
): GoodsRefusal | undefined {
  const after = foldGoods([...before, move]);
  const group = after.groups.find((g) => groupKey(g) === groupKey(move));
  const takenBack = move.reversesId !== null;
  if (group) {
    const was = foldGoods(before).groups.find((g) => groupKey(g) === groupKey(move));
    if (group.came > lot.pieces) return { code: 'moreThanLot', lot: lot.tag, inLot: lot.pieces, came: was?.came ?? 0 };
    if (takenBack && Math.min(group.onShelf, group.setAside, group.handedOver) < 0)
      return { code: 'wentOn', lot: lot.tag };
    if (group.onShelf < 0) return { code: 'moreThanShelf', lot: lot.tag, onShelf: was?.onShelf ?? 0 };
  }
  const short = after.lines.find((l) => l.setAside < 0 || l.handedOver < 0);
  if (!short) return undefined;
  if (takenBack) return { code: 'wentOn', lot: lot.tag };
  const had = foldGoods(before).lines.find((l) => lineKey(l) === lineKey(short));
  return short.setAside < 0
    ? { code: 'moreThanSetAside', lot: lot.tag, setAside: had?.setAside ?? 0 }
    : { code: 'moreThanHandedOver', lot: lot.tag, handedOver: had?.handedOver ?? 0 };
}

/** Why pieces can't move so, in a sentence that says what to do. */
export function sayGoodsRefusal(refusal: GoodsRefusal): string {
  switch (refusal.code) {
    case 'moreThanLot':
      return $localize`${refusal.lot} is of ${refusal.inLot} pieces, and ${refusal.came} of them are counted already. Count again, and write how many more there are.`;
    case 'moreThanShelf':
      return $localize`Of ${refusal.lot} there are ${refusal.onShelf} left on the shelf. Take no more than that, or put some back that are set aside.`;
    case 'moreThanSetAside':
      return $localize`Of ${refusal.lot} there are ${refusal.setAside} set aside here. Set more aside first.`;
    case 'moreThanHandedOver':
      return $localize`Of ${refusal.lot} there were ${refusal.handedOver} handed over here. No more can come back.`;
    case 'wentOn':
      return $localize`Those pieces of ${refusal.lot} went on since. Take back first what was done with them last.`;
  }
}
