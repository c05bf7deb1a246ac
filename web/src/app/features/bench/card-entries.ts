import type { LotDetail, NewRunEntry } from '@vestigia/contract';
import type { PlannedStep } from '@vestigia/core';
import { foldRun, readTemperatureC } from '@vestigia/core';
import { newId } from '../../api/new-id';
import { readNumber } from './read-number';

export interface KeyedWeighing {
  readonly batch: number;
  readonly materialId: string;
  readonly name: string;
  readonly planned: string;
  quantityText: string;
  stockLotId: string;
}
export interface KeyedStep {
  readonly step: PlannedStep;
  readonly open: boolean;
  begun: string;
  finished: string;
  hottest: string;
  ph: string;
  note: string;
  readonly weighings: KeyedWeighing[];
}

/** A time of day as written by hand: `9:40`, `9.40`, `0940`; `undefined` where it is none. */
export function readClock(text: string): string | undefined {
  const found = /^(\d{1,2})[:.,h ]?(\d{2})$/.exec(text.trim());
  const [hours, minutes] = [Number(found?.[1]), Number(found?.[2])];
  return found && hours < 24 && minutes < 60
    ? `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`
    : undefined;
}

/**
 * The card's lines as bench entries in the order they were done. A time earlier than the one before it is of the next
 * day: steeps go over night.
 */
export function entriesOf(
  keyed: readonly Pick<KeyedStep, 'step' | 'open' | 'begun' | 'finished' | 'hottest' | 'ph' | 'note' | 'weighings'>[],
  lot: Pick<LotDetail, 'entries' | 'plan'>,
  instantOf: (clock: string, daysLater: number) => number,
): NewRunEntry[] {
  let lastMs = 0;
  let daysLater = 0;
  const at = (clock: string): string => {
    const time = readClock(clock) ?? '00:00';
    while (instantOf(time, daysLater) < lastMs) daysLater += 1;
    lastMs = instantOf(time, daysLater);
    return new Date(lastMs).toISOString();
  };
  const records = foldRun(lot.entries, lot.plan.steps.length);
  return keyed
    .filter((k) => k.open && (k.begun !== '' || k.finished !== ''))
    .flatMap((k) => {
      const shared = {
        stepIndex: k.step.index,
        replacesId: null,
        temperatureC: null,
        text: null,
        weighing: null,
        detail: { readBy: 'card' as const },
      };
      const begunAlready = records[k.step.index]?.startedAt !== undefined;
      const begun = at(k.begun === '' ? k.finished : k.begun);
      const weighings = k.weighings.filter((w) => w.quantityText.trim() !== '');
      const hottest = readTemperatureC(k.hottest);
      const ph = readNumber(k.ph);
      const entries: NewRunEntry[] = [
        ...(begunAlready ? [] : [{ ...shared, id: newId(), kind: 'start' as const, at: begun }]),
        ...weighings.map((w) => ({
          ...shared,
          id: newId(),
          kind: 'weigh' as const,
          at: begun,
          weighing: {
            batch: w.batch,
            materialId: w.materialId,
            stockLotId: w.stockLotId,
            quantityText: w.quantityText,
            movementId: newId(),
          },
        })),
        ...(hottest === undefined
          ? []
          : [{ ...shared, id: newId(), kind: 'temperature' as const, at: begun, temperatureC: hottest }]),
        ...(ph === undefined
          ? []
          : [{ ...shared, id: newId(), kind: 'ph' as const, at: begun, detail: { ...shared.detail, ph } }]),
        ...(k.note.trim() === '' ? [] : [{ ...shared, id: newId(), kind: 'note' as const, at: begun, text: k.note }]),
      ];
      if (k.finished !== '')
        entries.push({
          ...shared,
          id: newId(),
          kind: 'finish',
          at: at(k.finished),
          text: weighings.length < k.weighings.length ? 'not written on the card what was weighed' : null,
        });
      return entries;
    });
}
