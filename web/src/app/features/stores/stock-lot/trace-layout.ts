/** One strand of a jar's trace: what came in on the left, what went out on the right. */
export interface TraceStrand {
  readonly key: string;
  readonly side: 'in' | 'out';
  readonly amount: number;
  readonly label: string;
  /** What it became, in words, for the list below the picture. */
  readonly meaning?: string;
  readonly link?: readonly string[];
  /** The colour it dyed; absent where there is none. */
  readonly colour?: string;
  readonly dashed?: boolean;
}

export interface StrandLayout extends TraceStrand {
  readonly path: string;
  readonly width: number;
  readonly labelX: number;
  readonly labelY: number;
}

export interface TracePictureLayout {
  readonly strands: readonly StrandLayout[];
  readonly height: number;
  readonly knotY: number;
  readonly knotX: number;
  readonly knotHeight: number;
}

const ROW = 26;
const THICKEST = 18;
const THINNEST = 3;
const STOCK_LOT_WIDTH = 100;
const STRAND = 120;
/** Room for the parents' labels, where there are parents. */
const PARENTS_ROOM = 190;
const EDGE = 16;

/**
 * Lays a jar's strands: each as thick as its share of its side (down to a hair that can still be seen), fanned out so
 * that every label has a line of its own, and meeting at the jar in the same order without crossing.
 */
export function layTrace(strands: readonly TraceStrand[]): TracePictureLayout {
  const stockLotLeft = strands.some((s) => s.side === 'in') ? PARENTS_ROOM + STRAND : EDGE;
  const stockLotRight = stockLotLeft + STOCK_LOT_WIDTH;
  const rows = Math.max(...(['in', 'out'] as const).map((side) => strands.filter((s) => s.side === side).length), 1);
  const height = rows * ROW + 16;
  const knotY = height / 2;
  const layout = (['in', 'out'] as const).flatMap((side) => {
    const own = strands.filter((s) => s.side === side);
    const total = own.reduce((sum, s) => sum + Math.max(0, s.amount), 0) || 1;
    const widths = own.map((s) => Math.max(THINNEST, (THICKEST * Math.max(0, s.amount)) / total));
    const knot = widths.reduce((sum, w) => sum + w, 0);
    let at = knotY - knot / 2;
    return own.map((s, i): StrandLayout => {
      const width = widths[i] ?? THINNEST;
      const stockLotY = at + width / 2;
      at += width;
      const endY = knotY + (i - (own.length - 1) / 2) * ROW;
      const [from, to] =
        side === 'in' ? [stockLotLeft - STRAND, stockLotLeft] : [stockLotRight, stockLotRight + STRAND];
      const [fromY, toY] = side === 'in' ? [endY, stockLotY] : [stockLotY, endY];
      const middle = (from + to) / 2;
      return {
        ...s,
        width,
        path: `M${from} ${round(fromY)} C${middle} ${round(fromY)} ${middle} ${round(toY)} ${to} ${round(toY)}`,
        labelX: side === 'in' ? from - 8 : to + 8,
        labelY: round(endY + 4),
      };
    });
  });
  return { strands: layout, height, knotY, knotX: stockLotLeft, knotHeight: Math.max(26, THICKEST + 8) };
}

const round = (value: number): number => Math.round(value * 10) / 10;
