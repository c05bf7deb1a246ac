import { readAmount } from '../quantity/amount';
import type { PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import type { BroughtEntry, BroughtEntryOf, CheckedEntry, SolutionTaken } from './run-entry';
import type { MissingPart, RunRefusal, RunRefusalFact } from './run-refusal';
import { refuseEntry } from './run-refusal';

/** An entry with all its kind needs, or what is missing. */
export type EntryCheck =
  { readonly ok: true; readonly entry: CheckedEntry } | { readonly ok: false; readonly refusal: RunRefusal };

const COLDEST_C = -5;
const HOTTEST_C = 105;
/** A solution’s strength is said to this share of what went into it. */
const SOLUTION_WITHIN = 1e-3;

const refuse = (fact: RunRefusalFact): EntryCheck => ({ ok: false, refusal: refuseEntry(fact) });
const missing = (part: MissingPart): EntryCheck => refuse({ reason: 'missing', part });
const complete = (entry: CheckedEntry): EntryCheck => ({ ok: true, entry });

/**
 * Whether an entry says all that its kind needs; the only place where a brought entry becomes one that can be recorded.
 * What the run allows is for `ruleOnEntry` to say.
 * @param step the step it names; a weighing is read in the unit its plan weighs in
 */
export function checkEntry(step: PlannedStep, entry: BroughtEntry): EntryCheck {
  switch (entry.kind) {
    case 'start':
    case 'pause':
    case 'resume':
    case 'redo':
    case 'finish':
    case 'skip':
    case 'takeBack':
    case 'cancel':
      return complete(entry);
    case 'note':
      return (entry.text ?? '').trim() === '' ? missing('note') : complete(entry);
    case 'temperature':
      return checkTemperature(entry);
    case 'weigh':
      return checkWeighing(step, entry);
    case 'leaveOut':
      return checkLeaveOut(step, entry);
    case 'ph': {
      const ph = entry.detail?.ph;
      if (ph === undefined) return missing('ph');
      return complete({ ...entry, detail: { ...entry.detail, ph } });
    }
    case 'sample': {
      const depth = entry.detail?.depth;
      if (depth === undefined) return missing('sample');
      return complete({ ...entry, detail: { ...entry.detail, depth } });
    }
    case 'bath': {
      const bath = entry.detail?.bath;
      if (bath === undefined) return missing('bath');
      return complete({ ...entry, detail: { ...entry.detail, bath } });
    }
    case 'add':
      return checkAdded(entry);
    case 'moved': {
      const { vessels = [], water } = entry.detail ?? {};
      if (vessels.length === 0 && water === undefined) return missing('place');
      return complete({ ...entry, detail: { ...entry.detail } });
    }
    case 'pieces': {
      const { batch = 1, change = 0 } = entry.detail ?? {};
      if (change === 0) return missing('pieces');
      return complete({ ...entry, detail: { ...entry.detail, batch, change } });
    }
    case 'extra': {
      const { title = '', stepKind } = entry.detail ?? {};
      if (title.trim() === '' || stepKind === undefined) return missing('step');
      return complete({ ...entry, detail: { ...entry.detail, title, stepKind } });
    }
    case 'pulls': {
      const pullMinutes = entry.detail?.pullMinutes ?? [];
      if (pullMinutes.length === 0) return missing('pulls');
      return complete({ ...entry, detail: { ...entry.detail, pullMinutes } });
    }
    case 'pull': {
      const piece = entry.detail?.piece;
      if (piece === undefined) return missing('piece');
      return complete({ ...entry, detail: { ...entry.detail, piece } });
    }
    case 'zone':
      return checkZone(step, entry);
    case 'strained': {
      const way = entry.detail?.way;
      if (way === undefined) return missing('straining');
      return complete({ ...entry, detail: { ...entry.detail, way } });
    }
    case 'rescale': {
      const rescale = entry.detail?.rescale ?? [];
      if (rescale.length === 0) return missing('rescale');
      return complete({ ...entry, detail: { ...entry.detail, rescale } });
    }
    case 'hand': {
      const toPerson = entry.detail?.toPerson;
      if (toPerson === undefined) return missing('person');
      return complete({ ...entry, detail: { ...entry.detail, toPerson } });
    }
  }
}

function checkZone(step: PlannedStep, entry: BroughtEntryOf<'zone'>): EntryCheck {
  const { zone, did } = entry.detail ?? {};
  if (zone === undefined || did === undefined) return missing('zone');
  if (!step.zones?.some((z) => z.zone === zone)) return refuse({ reason: 'noSuchZone' });
  if (did === 'left' && (entry.text ?? '').trim() === '') return refuse({ reason: 'reasonMissing', of: 'zone' });
  return complete({ ...entry, detail: { ...entry.detail, zone, did } });
}

function checkLeaveOut(step: PlannedStep, entry: BroughtEntryOf<'leaveOut'>): EntryCheck {
  const { batch, materialId } = entry.detail ?? {};
  if (batch === undefined || materialId === undefined) return missing('weighing');
  if (!plannedWeighing(step, { batch, materialId })) return refuse({ reason: 'notPlanned' });
  if ((entry.text ?? '').trim() === '') return refuse({ reason: 'reasonMissing', of: 'leaveOut' });
  return complete({ ...entry, detail: { ...entry.detail, batch, materialId } });
}

/** What came out of a jar is a number; what didn't may be a handful. */
function checkAdded(entry: BroughtEntryOf<'add'>): EntryCheck {
  const { batch = 1, name = '', measure = 'weight', quantityText = '' } = entry.detail ?? {};
  if (name.trim() === '' || quantityText.trim() === '') return missing('added');
  const reading = readAmount(quantityText, measure);
  const detail = { ...entry.detail, batch, name, measure, quantityText };
  if (entry.weighing === null)
    return complete({ ...entry, weighing: null, detail: reading.ok ? { ...detail, amount: reading.amount } : detail });
  if (!reading.ok) return refuse({ reason: reading.code, message: reading.message });
  const { materialId, stockLotId } = entry.weighing;
  return complete({
    ...entry,
    weighing: { batch, materialId, stockLotId, amount: reading.amount },
    detail: { ...detail, amount: reading.amount },
  });
}

function checkTemperature(entry: BroughtEntryOf<'temperature'>): EntryCheck {
  const { temperatureC } = entry;
  if (temperatureC === null) return missing('temperature');
  if (temperatureC < COLDEST_C || temperatureC > HOTTEST_C) return refuse({ reason: 'outOfRange', temperatureC });
  return complete({ ...entry, temperatureC });
}

function checkWeighing(step: PlannedStep, entry: BroughtEntryOf<'weigh'>): EntryCheck {
  if (entry.weighing === null) return missing('weighing');
  const { batch, materialId, stockLotId, quantityText } = entry.weighing;
  const planned = plannedWeighing(step, entry.weighing);
  if (!planned) return refuse({ reason: 'notPlanned' });
  const solution = entry.detail?.solution;
  if (solution) {
    if (planned.measure !== 'weight' || !isTaking(solution)) return refuse({ reason: 'notASolution' });
    // Grams to the litre are milligrams to the millilitre.
    const amount = Math.round(solution.takenMl * solution.gPerL);
    return complete({ ...entry, weighing: { batch, materialId, stockLotId: solution.stockLotId, amount } });
  }
  const reading = readAmount(quantityText, planned.measure);
  if (!reading.ok) return refuse({ reason: reading.code, message: reading.message });
  return complete({ ...entry, weighing: { batch, materialId, stockLotId, amount: reading.amount } });
}

/** Whether a solution can be as it is said: something taken of it, and no more than was made up. */
const isTaking = ({ takenMl, gPerL, made }: SolutionTaken): boolean =>
  takenMl > 0 &&
  gPerL > 0 &&
  (!made ||
    (made.madeUpMl >= takenMl &&
      made.dissolvedG > 0 &&
      Math.abs((made.dissolvedG / made.madeUpMl) * 1000 - gPerL) <= gPerL * SOLUTION_WITHIN));

/** The weighing of a step that an entry answers; `undefined` where the plan has none. */
export const plannedWeighing = (
  step: PlannedStep,
  { batch, materialId }: { batch: number; materialId: string },
): PlannedWeighing | undefined => step.weighings.find((w) => w.batch === batch && w.materialId === materialId);
