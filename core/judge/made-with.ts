import { minutesInWork } from '../run/run-record';
import type { StepRecord } from '../run/step-record';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { ShadeOf } from '../scaling/shade-of';
import { mainGroup } from '../scaling/shade-of';

/** What a shade was made with, as it is written beside a snippet. */
export interface MadeWith {
  readonly base: string;
  /** Empty where nobody said. */
  readonly fibre: string;
  readonly dyestuffs: readonly string[];
  readonly mordants: readonly string[];
  readonly modifiers: readonly string[];
  readonly part: string;
  readonly dip: number | null;
  /** How long it was in dyebaths, all together; as planned where no step of them was begun. */
  readonly minutes: number | null;
  /** Base and materials, for whoever asks what they gave. */
  readonly materialIds: readonly string[];
}

const DYES: readonly PlannedStep['kind'][] = ['dye', 'exhaust'];

/**
 * What a shade of a lot was made with: what went into the steps its pieces went through.
 * @param records of the steps as they were run; a minute counts from begun to finished, less pauses
 */
export function madeWith(plan: LotPlan, records: readonly StepRecord[], of: ShadeOf): MadeWith {
  const group = plan.groups.find((g) => g.key === of.group) ?? mainGroup(plan);
  const own = plan.steps.filter((s) => s.groups === undefined || !group || s.groups.includes(group.key));
  const weighed = own.flatMap((s) =>
    s.weighings.map((w) => ({ step: s, materialId: w.materialId, name: w.materialName })),
  );
  const kindOf = (id: string): string | null => plan.materials.find((m) => m.materialId === id)?.kind ?? null;
  const named = (isIt: (w: (typeof weighed)[number]) => boolean): string[] => [
    ...new Set(weighed.filter(isIt).map((w) => w.name)),
  ];
  const dyed = own.filter((s) => DYES.includes(s.kind));
  const run = dyed.flatMap((s) => {
    const record = records[s.index];
    return record?.startedAt === undefined || record.finishedAt === undefined
      ? []
      : [minutesInWork(record, Date.parse(record.finishedAt))];
  });
  const minutes = (run.length > 0 ? run : dyed.map((s) => s.durationMin)).reduce((sum, m) => sum + m, 0);
  return {
    base: group?.baseName ?? '',
    fibre: group?.fibre ?? '',
    dyestuffs: named((w) => kindOf(w.materialId) === 'dyestuff'),
    mordants: named((w) => kindOf(w.materialId) === 'mordant'),
    modifiers: named((w) => kindOf(w.materialId) === 'modifier' || w.step.kind === 'modify'),
    part: group?.partName ?? '',
    dip: of.dip,
    minutes: dyed.length === 0 ? null : Math.round(minutes),
    materialIds: [...new Set([...(group ? [group.baseId] : []), ...weighed.map((w) => w.materialId)])],
  };
}

/** The same in a line: what stands under a snippet. */
export const sayMadeWith = ({ base, dyestuffs, mordants, modifiers, part, dip, minutes }: MadeWith): string =>
  [
    base,
    dyestuffs.join($localize` and `),
    mordants.length > 0 ? $localize`on ${mordants.join($localize` and `)}` : '',
    modifiers.length > 0 ? $localize`then ${modifiers.join($localize` and `)}` : '',
    part,
    dip === null ? '' : $localize`dip ${dip}`,
    minutes === null ? '' : `${minutes} min`,
  ]
    .filter((w) => w !== '')
    .join(', ');

/** So many snippets on a page of the book, in rows of `SLOTS_ACROSS`. */
export const SLOTS_A_PAGE = 12;
/** Snippets in a row. */
export const SLOTS_ACROSS = 4;

/** The first free place of a book, page by page from 1. */
export function nextFreeSlot(taken: readonly { readonly page: number; readonly slot: number }[]): {
  page: number;
  slot: number;
} {
  const used = new Set(taken.map(({ page, slot }) => `${page} ${slot}`));
  for (let page = 1; ; page++)
    for (let slot = 1; slot <= SLOTS_A_PAGE; slot++) if (!used.has(`${page} ${slot}`)) return { page, slot };
}

/** Of something that no lot here gave. */
export const NOTHING_KNOWN: MadeWith = {
  base: '',
  fibre: '',
  dyestuffs: [],
  mordants: [],
  modifiers: [],
  part: '',
  dip: null,
  minutes: null,
  materialIds: [],
};
