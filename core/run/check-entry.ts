import { readAmount } from '../quantity/amount';
import type { PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import type { BroughtEntry, BroughtEntryOf, CheckedEntry } from './run-entry';

/** Why an entry can't be written, with a stable code and a sentence. */
export interface RunRefusal {
  readonly reason: string;
  readonly message: string;
}

/** An entry with all its kind needs, or what is missing. */
export type EntryCheck =
  { readonly ok: true; readonly entry: CheckedEntry } | { readonly ok: false; readonly refusal: RunRefusal };

const COLDEST_C = -5;
const HOTTEST_C = 105;

const refuse = (reason: string, message: string): EntryCheck => ({ ok: false, refusal: { reason, message } });
const empty = (message: string): EntryCheck => refuse('empty', message);
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
    case 'cancel':
      return complete(entry);
    case 'note':
      return (entry.text ?? '').trim() === '' ? empty('The note is empty. Write what you saw.') : complete(entry);
    case 'temperature':
      return checkTemperature(entry);
    case 'weigh':
      return checkWeighing(step, entry);
    case 'ph': {
      const ph = entry.detail?.ph;
      if (ph === undefined) return empty('Write the pH, a number from 0 to 14.');
      return complete({ ...entry, detail: { ...entry.detail, ph } });
    }
    case 'sample': {
      const depth = entry.detail?.depth;
      if (depth === undefined) return empty('Say which step it matches, or read its colour.');
      return complete({ ...entry, detail: { ...entry.detail, depth } });
    }
    case 'bath': {
      const bath = entry.detail?.bath;
      if (bath === undefined) return empty('Say what went in or out, and how much.');
      return complete({ ...entry, detail: { ...entry.detail, bath } });
    }
    case 'pulls': {
      const pullMinutes = entry.detail?.pullMinutes ?? [];
      if (pullMinutes.length === 0) return empty('Say how many pieces are pulled, and when.');
      return complete({ ...entry, detail: { ...entry.detail, pullMinutes } });
    }
    case 'pull': {
      const piece = entry.detail?.piece;
      if (piece === undefined) return empty('Say which piece was pulled.');
      return complete({ ...entry, detail: { ...entry.detail, piece } });
    }
    case 'rescale': {
      const rescale = entry.detail?.rescale ?? [];
      if (rescale.length === 0) return empty('There is nothing left to rescale.');
      return complete({ ...entry, detail: { ...entry.detail, rescale } });
    }
    case 'hand': {
      const toPerson = entry.detail?.toPerson;
      if (toPerson === undefined) return empty('Say who takes it over.');
      return complete({ ...entry, detail: { ...entry.detail, toPerson } });
    }
  }
}

function checkTemperature(entry: BroughtEntryOf<'temperature'>): EntryCheck {
  const { temperatureC } = entry;
  if (temperatureC === null) return empty('Write the temperature in °C.');
  if (temperatureC < COLDEST_C || temperatureC > HOTTEST_C)
    return refuse(
      'outOfRange',
      `${temperatureC} °C is no temperature of a dye bath. Take it again; a probe that says so is broken.`,
    );
  return complete({ ...entry, temperatureC });
}

function checkWeighing(step: PlannedStep, entry: BroughtEntryOf<'weigh'>): EntryCheck {
  if (entry.weighing === null) return empty('Write what was weighed, and from which jar.');
  const { batch, materialId, stockLotId, quantityText } = entry.weighing;
  const planned = plannedWeighing(step, entry.weighing);
  if (!planned)
    return refuse('notPlanned', 'This step does not weigh that material for that batch. Choose it from the list.');
  const reading = readAmount(quantityText, planned.measure);
  if (!reading.ok) return refuse('code' in reading ? String(reading.code) : 'notAnAmount', reading.message);
  return complete({ ...entry, weighing: { batch, materialId, stockLotId, amount: reading.amount } });
}

/** The weighing of a step that an entry answers; `undefined` where the plan has none. */
export const plannedWeighing = (
  step: PlannedStep,
  { batch, materialId }: { batch: number; materialId: string },
): PlannedWeighing | undefined => step.weighings.find((w) => w.batch === batch && w.materialId === materialId);
