import type { LotDetail, NewRunEntry } from '@vestigia/contract';
import type { PlannedStep } from '@vestigia/core';
import { addDays, foldRun, readTemperatureC, readToldTime } from '@vestigia/core';
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
  /** Another day than the line before it; empty where it is the same. */
  day: string;
  begun: string;
  finished: string;
  hottest: string;
  ph: string;
  note: string;
  readonly weighings: KeyedWeighing[];
}

/** A time as it is keyed in: by the clock, or so long after what came before it. */
interface Told {
  readonly at: string;
  readonly about: string | null;
}

/**
 * The card's lines as bench entries in the order they were done. A line without a day is of the day before it; a time
 * earlier than the one before it is of the next day: steeps go over night.
 * @param firstDay of the first line that has none, `YYYY-MM-DD`
 * @param instantOf epoch ms of a clock time on a day, in the studio's zone
 */
export function entriesOf(
  keyed: readonly KeyedStep[],
  lot: Pick<LotDetail, 'entries' | 'plan'>,
  firstDay: string,
  instantOf: (day: string, clock: string) => number,
): NewRunEntry[] {
  let lastMs = 0;
  let day = firstDay;
  const told = (text: string, isNewDay: boolean): Told => {
    const time = readToldTime(text);
    if (time?.by === 'length') lastMs = (lastMs === 0 ? instantOf(day, '09:00') : lastMs) + time.minutes * 60_000;
    else {
      const clock = time?.clock ?? '00:00';
      if (time?.nextDay) day = addDays(day, 1);
      while (!isNewDay && instantOf(day, clock) < lastMs) day = addDays(day, 1);
      lastMs = instantOf(day, clock);
    }
    return { at: new Date(lastMs).toISOString(), about: time?.about ?? null };
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
      if (k.day !== '') day = k.day;
      const length = readToldTime(k.finished)?.by === 'length';
      const begun = told(k.begun === '' ? (length ? '0 min' : k.finished) : k.begun, k.day !== '');
      const dated = ({ at, about }: Told) => ({
        at,
        detail: about === null ? shared.detail : { ...shared.detail, about },
      });
      const weighings = k.weighings.filter((w) => w.quantityText.trim() !== '');
      const hottest = readTemperatureC(k.hottest);
      const ph = readNumber(k.ph);
      const entries: NewRunEntry[] = [
        ...(begunAlready ? [] : [{ ...shared, ...dated(begun), id: newId(), kind: 'start' as const }]),
        ...weighings.map((w) => ({
          ...shared,
          id: newId(),
          kind: 'weigh' as const,
          at: begun.at,
          weighing: {
            batch: w.batch,
            materialId: w.materialId,
            stockLotId: w.stockLotId === '' ? null : w.stockLotId,
            quantityText: w.quantityText,
            movementId: newId(),
          },
        })),
        ...(hottest === undefined
          ? []
          : [{ ...shared, id: newId(), kind: 'temperature' as const, at: begun.at, temperatureC: hottest }]),
        ...(ph === undefined
          ? []
          : [{ ...shared, id: newId(), kind: 'ph' as const, at: begun.at, detail: { ...shared.detail, ph } }]),
        ...(k.note.trim() === ''
          ? []
          : [{ ...shared, id: newId(), kind: 'note' as const, at: begun.at, text: k.note }]),
      ];
      if (k.finished !== '')
        entries.push({
          ...shared,
          ...dated(told(k.finished, false)),
          id: newId(),
          kind: 'finish',
          text: weighings.length < k.weighings.length ? $localize`not written on the card what was weighed` : null,
        });
      return entries;
    });
}
