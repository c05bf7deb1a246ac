/** Middle and far end of how far off things lay. */
export interface Spread {
  readonly median: number;
  readonly p95: number;
}

const round = (value: number): number => Math.round(value * 1000) / 1000;

export function spreadOf(all: readonly number[]): Spread | null {
  if (all.length === 0) return null;
  const sorted = [...all].sort((x, y) => x - y);
  const at = (share: number): number =>
    round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0);
  return { median: at(0.5), p95: at(0.95) };
}

/** How each way of dyeing an order came out, ΔE00 to the master. */
export const WAYS = ['unchanged', 'corrected', 'struckOff', 'lastLot', 'strengthOnly', 'nearest'] as const;
export type Way = (typeof WAYS)[number];

/** One order: what was foretold of it, and how each way came out. */
export interface Scored {
  /** How far off it was, and within what it was said to lie; `null`: too little was read to say anything. */
  readonly foretold: { readonly off: number; readonly within80: number } | null;
  readonly ways: Readonly<Record<Way, number>>;
  readonly askedForStrikeOff: boolean;
  readonly limit: { readonly doses: number; readonly allLevers: number } | null;
}

export type Report = ReturnType<typeof reportOf>;

/** A strike-off was worth it where it brought the lot nearer by this, ΔE00. */
const WORTH_IT = 0.3;

/** What a set of orders tells. */
export function reportOf(scored: readonly Scored[], byHistory: Readonly<Record<string, readonly Scored[]>> = {}) {
  const foretoldOf = (all: readonly Scored[]) => all.flatMap((s) => s.foretold ?? []);
  const inside = (all: readonly { readonly off: number; readonly within80: number }[]): number =>
    round(all.filter((f) => f.off <= f.within80).length / Math.max(1, all.length));
  const sorted = foretoldOf(scored).sort((x, y) => x.within80 - y.within80);
  const third = Math.ceil(sorted.length / 3);
  const waysOf = (all: readonly Scored[]) =>
    Object.fromEntries(WAYS.map((way) => [way, spreadOf(all.map((s) => s.ways[way]))])) as Record<Way, Spread | null>;
  const asked = scored.filter((s) => s.askedForStrikeOff);
  const limits = scored.flatMap((s) => s.limit ?? []);
  return {
    predictions: spreadOf(sorted.map((f) => f.off)),
    coverage80: inside(sorted),
    coverageBySureness: {
      sure: inside(sorted.slice(0, third)),
      middling: inside(sorted.slice(third, 2 * third)),
      unsure: inside(sorted.slice(2 * third)),
    },
    reorders: waysOf(scored),
    byHistory: Object.fromEntries(
      Object.entries(byHistory).map(([lots, all]) => [
        lots,
        {
          predictions: spreadOf(foretoldOf(all).map((f) => f.off)),
          coverage80: inside(foretoldOf(all)),
          reorders: waysOf(all),
        },
      ]),
    ),
    strikeOffs: {
      asked: asked.length,
      worthIt: asked.filter((s) => s.ways.corrected - s.ways.struckOff >= WORTH_IT).length,
      of: scored.length,
    },
    limit:
      limits.length === 0
        ? null
        : { doses: spreadOf(limits.map((l) => l.doses)), allLevers: spreadOf(limits.map((l) => l.allLevers)) },
  };
}
