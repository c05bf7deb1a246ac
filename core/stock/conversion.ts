import { worded } from '../words/worded';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { formatWeight } from '../quantity/weight';

/** Ways stock changes its form. What goes in leaves its jar, what comes out is a new one that knows its parents. */
export const CONVERSION_KINDS = [
  'dry',
  'freeze',
  'grind',
  'dissolve',
  'blend',
  'open',
  'wind',
  'cut',
  'compost',
] as const;
/** One of `CONVERSION_KINDS`. */
export type ConversionKind = (typeof CONVERSION_KINDS)[number];
/** Ways that are for fibre alone: into pieces of another size. */
export const FIBRE_CONVERSIONS: readonly ConversionKind[] = ['wind', 'cut'];

/** How each conversion is said on screen. */
export const CONVERSION_LABELS: Readonly<Record<ConversionKind, string>> = worded(() => ({
  dry: $localize`dried`,
  freeze: $localize`frozen`,
  grind: $localize`ground`,
  dissolve: $localize`dissolved`,
  blend: $localize`blended`,
  open: $localize`opened`,
  wind: $localize`wound off`,
  cut: $localize`cut`,
  compost: $localize`composted`,
}));

/**
 * One jar that goes into a conversion. Weight in grams; strength in per cent of the studio's reference lot, `null`
 * while unknown.
 */
export interface ConversionInput {
  readonly stockLotId: string;
  readonly tag: string;
  readonly weightG: number;
  readonly strengthPercent: number | null;
}

/** What a conversion loses, g; or why it can’t be. */
export type ConversionCheck =
  | { readonly ok: true; readonly lossG: number }
  | {
      readonly ok: false;
      readonly code: 'nothingIn' | 'itself' | 'twice' | 'moreOut' | 'oneParent';
      readonly message: string;
    };

/**
 * Checks that weight is conserved from parents to child but for the loss that is entered: what comes out can't weigh
 * more than what went in, a jar goes in once, and never into itself.
 * @param outG what came out, grams; 0 when all went to the compost
 */
export function checkConversion(
  kind: ConversionKind,
  inputs: readonly ConversionInput[],
  outId: string | null,
  outG: number,
): ConversionCheck {
  const refuse = (code: Exclude<ConversionCheck, { ok: true }>['code'], message: string): ConversionCheck => ({
    ok: false,
    code,
    message,
  });
  if (inputs.length === 0) return refuse('nothingIn', $localize`Choose what goes in, and how much of it.`);
  const itself = inputs.find((i) => i.stockLotId === outId);
  if (itself) return refuse('itself', $localize`${itself.tag} can’t go into itself. Give what comes out a new jar.`);
  const twice = inputs.find((i, n) => inputs.findIndex((j) => j.stockLotId === i.stockLotId) !== n);
  if (twice)
    return refuse('twice', $localize`${twice.tag} stands in the list twice. Put its whole weight on one line.`);
  if (kind !== 'blend' && inputs.length > 1)
    return refuse('oneParent', $localize`Several jars into one is a blend. Blend them first, or do each by itself.`);
  const inG = inputs.reduce((sum, i) => sum + i.weightG, 0);
  const lossG = Math.round((inG - outG) * 1000) / 1000;
  if (lossG < 0)
    return refuse(
      'moreOut',
      $localize`${formatWeight(outG)} can’t come out of ${formatWeight(inG)}. Weigh again: one of the two is wrong.`,
    );
  return { ok: true, lossG };
}

/**
 * Strength of a blend against the studio's reference lot: the mean of its parts, weighted by what each weighs.
 * `null` as soon as one part's strength is unknown: a guess would spoil every later dose.
 */
export function blendStrength(inputs: readonly ConversionInput[]): Figure | null {
  const totalG = inputs.reduce((sum, i) => sum + i.weightG, 0);
  if (totalG <= 0 || inputs.some((i) => i.strengthPercent === null)) return null;
  const percent = inputs.reduce((sum, i) => sum + i.weightG * (i.strengthPercent ?? 0), 0) / totalG;
  return figure(
    Math.round(percent * 10) / 10,
    '%',
    $localize`sum of weight × strength ÷ sum of weight`,
    inputs.map((i) => ({
      name: i.tag,
      value: i.weightG,
      unit: 'g',
      source: $localize`strength ${i.strengthPercent} %`,
    })),
    [$localize`of the studio’s reference lot`],
  );
}

/**
 * How many times the dried weight the fresh one was, and what drying does to strength per gram when no dye is lost.
 * @param freshG above zero @param driedG above zero, at most `freshG`
 */
export function freshToDried(freshG: number, driedG: number): Figure {
  if (!(freshG > 0) || !(driedG > 0) || driedG > freshG)
    throw new RangeError(`driedG must be above zero and at most freshG, got ${driedG} of ${freshG}`);
  return figure(
    Math.round((freshG / driedG) * 100) / 100,
    $localize`g fresh for 1 g dried`,
    $localize`fresh weight ÷ dried weight`,
    [
      { name: $localize`fresh`, value: freshG, unit: 'g' },
      { name: $localize`dried`, value: driedG, unit: 'g' },
    ],
    [$localize`${Math.round((1 - driedG / freshG) * 1000) / 10} % went off as water`],
  );
}

/** Concentration of a stock solution: what was dissolved in the volume made up. g per litre. */
export function stockConcentration(dissolvedG: number, volumeMl: number): Figure {
  if (!(dissolvedG > 0) || !(volumeMl > 0)) throw new RangeError('dissolvedG and volumeMl must be above zero');
  return figure(
    Math.round((dissolvedG / volumeMl) * 1_000_000) / 1000,
    'g/l',
    $localize`dissolved weight ÷ volume made up`,
    [
      { name: $localize`dissolved`, value: dissolvedG, unit: 'g' },
      { name: $localize`made up to`, value: volumeMl, unit: 'ml' },
    ],
  );
}

/** Millilitres of a stock solution that hold a dose. Both above zero. */
export function volumeForDose(doseG: number, concentrationGPerL: number): Figure {
  if (!(doseG > 0) || !(concentrationGPerL > 0))
    throw new RangeError('doseG and concentrationGPerL must be above zero');
  return figure(Math.round((doseG / concentrationGPerL) * 100_000) / 100, 'ml', $localize`dose ÷ concentration`, [
    { name: $localize`dose`, value: doseG, unit: 'g' },
    { name: $localize`concentration`, value: concentrationGPerL, unit: 'g/l' },
  ]);
}

/** What a packet holds and needs; an amount of an auxiliary is in its own smallest unit. */
export interface PacketFacts {
  readonly contentsG: number;
  /** Dry fibre one packet dyes to its full shade. */
  readonly fibreG: number;
  readonly auxiliaries: readonly { readonly materialId: string; readonly amount: number }[];
}

/** Whole packets for so much fibre, and the auxiliaries that go with them: packets are never opened by halves. */
export function packetsFor(
  wofG: number,
  packet: PacketFacts,
): { packets: Figure; auxiliaries: readonly { materialId: string; amount: number }[] } {
  if (!(wofG > 0) || !(packet.fibreG > 0)) throw new RangeError('wofG and packet.fibreG must be above zero');
  // 12.000000001 packets are twelve: weights carry binary dust.
  const packets = Math.max(1, Math.ceil(Number((wofG / packet.fibreG).toPrecision(12))));
  const notes =
    packets * packet.fibreG > wofG
      ? [
          $localize`whole packets: enough for ${formatWeight(packets * packet.fibreG)}, so the shade may be deeper than one packet’s own`,
        ]
      : [$localize`whole packets`];
  return {
    packets: figure(
      packets,
      packets === 1 ? 'packet' : 'packets',
      $localize`dry fibre ÷ what one packet dyes, up to the next whole one`,
      [
        { name: $localize`dry fibre`, value: wofG, unit: 'g' },
        { name: $localize`one packet dyes`, value: packet.fibreG, unit: 'g' },
      ],
      notes,
    ),
    auxiliaries: packet.auxiliaries.map((a) => ({ materialId: a.materialId, amount: a.amount * packets })),
  };
}
