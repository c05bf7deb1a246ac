import type { LotDetail, NewRunEntry } from '@vestigia/contract';
import type { PlannedPick, PlannedWeighing } from '@vestigia/core';

type Step = LotDetail['plan']['steps'][number];

/** The one thing to do now at the bench. */
export type NextAct =
  | { readonly kind: 'begin'; readonly step: Step }
  | { readonly kind: 'weigh'; readonly step: Step; readonly weighing: PlannedWeighing; readonly pick: PlannedPick; /** Smallest units of the weighing's measure. */ readonly target: number }
  | { readonly kind: 'finish'; readonly step: Step; readonly endsAt: string }
  | { readonly kind: 'judge' };

/** What stands to be done next on a lot: begin the step, weigh what it still lacks, then finish it. */
export function nextAct(lot: LotDetail): NextAct | undefined {
  const { next, state } = lot.summary;
  if (state === 'toJudge' || state === 'held') return { kind: 'judge' };
  if (!next || (state !== 'planned' && state !== 'inWork')) return undefined;
  const step = lot.plan.steps[next.index];
  if (!step) return undefined;
  if (next.startedAt === null) return { kind: 'begin', step };
  for (const weighing of step.weighings) {
    for (const pick of weighing.picks) {
      if (pick.amount > 0 && !isWeighed(lot, step.index, weighing, pick)) return { kind: 'weigh', step, weighing, pick, target: pick.amount };
    }
  }
  return { kind: 'finish', step, endsAt: new Date(Date.parse(next.startedAt) + step.durationMin * 60_000).toISOString() };
}

/**
 * A pick is done when its jar was weighed from for it; a weighing taken from other jars is done when it has as many
 * entries as picks, since each entry answered one.
 */
function isWeighed(lot: LotDetail, stepIndex: number, weighing: PlannedWeighing, pick: PlannedPick): boolean {
  const replaced = new Set(lot.entries.map((e) => e.replacesId));
  const taken = lot.entries.filter((e) => e.stepIndex === stepIndex && e.weighing?.batch === weighing.batch && e.weighing.materialId === weighing.materialId && !replaced.has(e.id));
  return taken.length >= weighing.picks.length || taken.some((e) => e.weighing?.stockLotId === pick.stockLotId);
}

/** An entry with nothing said but its kind. */
export function entry(id: string, stepIndex: number, kind: NewRunEntry['kind'], rest: Partial<NewRunEntry> = {}): NewRunEntry {
  return { id, stepIndex, kind, replacesId: null, temperatureC: null, text: null, weighing: null, ...rest };
}
