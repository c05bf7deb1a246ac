import { worded } from '../words/worded';
import type { FibreGroup } from './catalogue-entry';

/**
 * How much of a material is usual, per cent of the weight of fibre: past `cautionAbove` it wants a reason, past
 * `stopAbove` no reason is good enough. General practice; the supplier's sheet and a studio's own proof come first.
 */
export interface UsualDose {
  readonly usual: readonly [number, number];
  readonly cautionAbove: number;
  readonly stopAbove: number;
  /** What too much of it does. */
  readonly tooMuch: string;
}

const alum = (low: number, high: number, cautionAbove: number): UsualDose => ({
  usual: [low, high],
  cautionAbove,
  stopAbove: 60,
  tooMuch: $localize`More aluminium than fibre takes stays in the bath, leaves wool sticky and harsh, and goes down the drain.`,
});
const iron = (cautionAbove: number, stopAbove: number): UsualDose => ({
  usual: [0.5, 4],
  cautionAbove,
  stopAbove,
  tooMuch: $localize`Iron eats fibre: it turns harsh, then brittle, and breaks months later.`,
});
const copper: UsualDose = worded(() => ({
  usual: [1, 3],
  cautionAbove: 4,
  stopAbove: 10,
  tooMuch: $localize`Copper is poisonous, and harmful to all that lives in water.`,
}));
const both = (dose: UsualDose): Readonly<Record<FibreGroup, UsualDose>> => ({ protein: dose, cellulose: dose });

const USUAL: Readonly<Record<string, Readonly<Partial<Record<FibreGroup, UsualDose>>>>> = worded(() => ({
  'potassium-alum': both(alum(8, 20, 25)),
  'ammonium-alum': both(alum(8, 20, 25)),
  'aluminium-sulphate': both(alum(5, 15, 20)),
  'aluminium-acetate': both(alum(5, 10, 15)),
  'aluminium-triformate': both(alum(4, 12, 16)),
  'aluminium-lactate': both(alum(4, 12, 16)),
  'iron-sulphate': { protein: iron(5, 10), cellulose: iron(8, 20) },
  'copper-sulphate': both(copper),
  'cream-of-tartar': both({
    usual: [3, 8],
    cautionAbove: 15,
    stopAbove: 60,
    tooMuch: $localize`So much tartar makes the bath acid and takes the mordant away again.`,
  }),
  'soda-ash': {
    cellulose: {
      usual: [1, 6],
      cautionAbove: 15,
      stopAbove: 60,
      tooMuch: $localize`So much soda burns skin and eyes, and is hard to rinse out before the mordant.`,
    },
  },
  'washing-soda-crystals': {
    cellulose: {
      usual: [3, 16],
      cautionAbove: 40,
      stopAbove: 160,
      tooMuch: $localize`So much soda burns skin and eyes, and is hard to rinse out before the mordant.`,
    },
  },
  'iron-acetate': { protein: iron(5, 10), cellulose: iron(8, 20) },
  'oxalic-acid': both({
    usual: [0.5, 3],
    cautionAbove: 6,
    stopAbove: 20,
    tooMuch: $localize`Oxalic acid is poisonous, weakens cellulose and is hard to rinse out.`,
  }),
  'tartaric-acid': both({
    usual: [0.5, 5],
    cautionAbove: 12,
    stopAbove: 50,
    tooMuch: $localize`So strong an acid strips the mordant, and weakens cotton and linen for good.`,
  }),
  'tannic-acid': both({
    usual: [3, 10],
    cautionAbove: 20,
    stopAbove: 80,
    tooMuch: $localize`More tannin than fibre takes stays in the bath and dulls what comes after.`,
  }),
  chalk: both({
    usual: [0.5, 6],
    cautionAbove: 15,
    stopAbove: 100,
    tooMuch: $localize`Chalk that does not dissolve settles on the pieces in spots.`,
  }),
  'citric-acid': both({
    usual: [0.5, 5],
    cautionAbove: 12,
    stopAbove: 50,
    tooMuch: $localize`So strong an acid strips the mordant, and weakens cotton and linen for good.`,
  }),
}));

/** How much of a material of the catalogue is usual on fibres of a group; `undefined` where nothing is agreed. */
export const usualDose = (catalogueKey: string | null, group: FibreGroup): UsualDose | undefined =>
  catalogueKey === null ? undefined : USUAL[catalogueKey]?.[group];
