import type { StudioFile } from '@vestigia/contract';
import type { GoodsKind } from '@vestigia/core';
import type { DocLot } from './dyehouse';
import { DAY_MS, byTime, iso } from './dyehouse';
import type { Random } from './random';

interface Teller {
  readonly random: Random;
  readonly endMs: number;
  readonly byId: string;
}

type Told = Required<Pick<StudioFile, 'customers' | 'orders' | 'orderLines' | 'orderLineLots' | 'goods'>>;
type Line = Required<Told['orderLines'][number]>;

const CUSTOMERS = [
  {
    name: 'The Merrow Players, wardrobe',
    reach: 'Stage door, 2 Ropewalk\nask for Teasel',
    note: 'Scrim is flameproofed after dyeing.',
  },
  { name: 'Orla Brackwater, rug weaver', reach: 'The Loft, Sandhill Lane', note: '' },
  { name: 'Pell and Quire, bookbinders', reach: '11 Inkle Street', note: 'Ribbon on reels, never folded.' },
];
const [WARDROBE, WEAVER, BINDER] = [0, 1, 2];
/** Lots since then have their finished pieces counted. */
const COUNTED_DAYS = 60;

/** Who ordered what of the last lots, and where their finished pieces went. */
export function addOrdersHistory(doc: StudioFile, { random, endMs, byId }: Teller): void {
  const told: Told = { customers: [], orders: [], orderLines: [], orderLineLots: [], goods: [] };
  const who = (daysBefore: number) => ({ byId, at: iso(endMs - daysBefore * DAY_MS) });
  const nameOf = (lot: DocLot): string => doc.colourways.find((c) => c.id === lot.colourwayId)?.name ?? '';
  const passed = new Map(
    doc.verdicts.filter((v) => (v.of ?? null) === null && v.verdict === 'pass').map((v) => [v.lotId, v.at]),
  );
  const newest = (colourway: string, isPassed: boolean): DocLot | undefined =>
    doc.lots.filter((l) => nameOf(l) === colourway && passed.has(l.id) === isPassed).at(-1);
  const customers = CUSTOMERS.map((c, i) => ({
    id: random.id(endMs),
    number: i + 1,
    ...c,
    erasedAt: null,
    at: iso(endMs - (200 - 30 * i) * DAY_MS),
  }));
  told.customers.push(...customers);
  const piecesOf = (lot: DocLot): number => lot.plan.pieces;
  const moved = (lot: DocLot, kind: GoodsKind, pieces: number, at: string, line?: Line, set: number | null = null) =>
    told.goods.push({
      id: random.id(endMs),
      kind,
      lotId: lot.id,
      group: null,
      pieces,
      lineId: line?.id ?? null,
      set,
      note: '',
      reversesId: null,
      at,
      byId,
    });
  const sinceMs = endMs - COUNTED_DAYS * DAY_MS;
  for (const lot of doc.lots) {
    const at = passed.get(lot.id);
    if (at !== undefined && Date.parse(at) > sinceMs && (lot.plan.groups ?? []).length < 2)
      moved(lot, 'came', piecesOf(lot), at);
  }
  const order = (
    customer: number,
    daysBefore: number,
    wantedInDays: number | null,
    state: Told['orders'][number]['state'],
    wanted: Partial<Line> & Pick<Line, 'what' | 'pieces'>,
    meant: readonly (DocLot | undefined)[] = [],
  ): Line => {
    const orderId = random.id(endMs);
    told.orders.push({
      id: orderId,
      number: told.orders.length + 1,
      customerId: customers[customer]?.id ?? '',
      state,
      wantedOn: wantedInDays === null ? null : iso(endMs + wantedInDays * DAY_MS).slice(0, 10),
      note: '',
      ...who(daysBefore),
    });
    const line: Line = {
      id: random.id(endMs),
      orderId,
      position: 0,
      pieceWeightG: null,
      colourwayId: null,
      matchLotId: null,
      brought: null,
      broughtNote: '',
      setOf: null,
      priceMinor: null,
      care: '',
      taggedAt: null,
      taggedById: null,
      ...wanted,
    };
    told.orderLines.push(line);
    for (const lot of meant) if (lot) told.orderLineLots.push({ lineId: line.id, lotId: lot.id, ...who(daysBefore) });
    return line;
  };

  const ribbon = newest('Winkle', true);
  if (ribbon) {
    const line = order(
      BINDER,
      40,
      -14,
      'agreed',
      {
        what: 'reels of book ribbon',
        pieces: 5,
        pieceWeightG: 25,
        colourwayId: ribbon.colourwayId,
        priceMinor: 2400,
        ...tagged(18),
      },
      [ribbon],
    );
    moved(ribbon, 'setAside', 5, iso(endMs - 19 * DAY_MS), line);
    moved(ribbon, 'handOver', 5, iso(endMs - 17 * DAY_MS), line);
    moved(ribbon, 'sold', 1, iso(endMs - 12 * DAY_MS));
  }
  const rug = newest('Foreshore', true);
  if (rug) {
    const line = order(
      WEAVER,
      25,
      7,
      'agreed',
      {
        what: 'hanks for a hall runner',
        pieces: 4,
        pieceWeightG: 200,
        colourwayId: rug.colourwayId,
        setOf: 2,
        priceMinor: 5200,
      },
      [rug],
    );
    moved(rug, 'setAside', 2, iso(endMs - 2 * DAY_MS), line, 1);
  }
  const [scrimBefore, scrim] = [newest('Low Tide', true), newest('Low Tide', false)];
  if (scrim)
    order(
      WARDROBE,
      9,
      14,
      'agreed',
      {
        what: 'lengths of scrim for the second act',
        pieces: 6,
        pieceWeightG: 250,
        colourwayId: scrim.colourwayId,
        matchLotId: scrimBefore?.id ?? null,
        priceMinor: 6800,
      },
      [scrim],
    );
  const marram = newest('Marram', true);
  if (marram)
    order(WEAVER, 3, 56, 'asked', {
      what: 'hanks for a border, as the last',
      pieces: 8,
      pieceWeightG: 200,
      colourwayId: marram.colourwayId,
      matchLotId: marram.id,
      priceMinor: 5200,
    });
  order(BINDER, 2, 35, 'agreed', {
    what: 'reels for a set of ledgers',
    pieces: 4,
    pieceWeightG: 25,
    brought: { L: 47, a: 21, b: 18, illuminant: 'D65', observer: '10' },
    broughtNote: 'an old spine, inside the fold',
  });

  told.goods.sort(byTime);
  Object.assign(doc, told);

  function tagged(daysBefore: number): Pick<Line, 'taggedAt' | 'taggedById'> {
    return { taggedAt: iso(endMs - daysBefore * DAY_MS), taggedById: byId };
  }
}
