import { HAZARD_LABELS, PRACTICE, said } from '@vestigia/core';
import { ORDER_STATE_LABELS } from './order-words';

/** Fields that hold one or several words out of a list of ours; what anybody wrote stays as it was written. */
const CHOSEN: readonly string[] = [
  'role',
  'metal',
  'measure',
  'base.fibre',
  'facts.forms',
  'facts.form',
  'facts.fibreGroups',
  'facts.water',
  'facts.light',
  'facts.wash',
];
const DAY = /^\d{4}-\d\d-\d\d$/;
const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:[\d.]+Z$/;

/** How days and moments are said in the studio. */
export interface SaysWhen {
  formatDay(day: string): string;
  formatMoment(at: string): string;
}

/** What stands in a field of what was changed, as a person reads it. */
export function valueWord(field: string, value: unknown, calendar: SaysWhen): string {
  if (value === null || value === undefined || value === '') return $localize`nothing`;
  if (value === true) return $localize`yes`;
  if (value === false) return $localize`no`;
  if (typeof value === 'string') {
    if (INSTANT.test(value)) return calendar.formatMoment(value);
    return DAY.test(value) ? calendar.formatDay(value) : word(field, value);
  }
  if (typeof value === 'number') return String(value);
  if (Array.isArray(value) && value.every((v) => typeof v === 'string')) return list(value.map((v) => word(field, v)));
  return (
    JSON.stringify(value)
      .replace(/[{}"[\]]/g, '')
      .replaceAll(',', ', ')
      .replaceAll(':', ' ') || $localize`nothing`
  );
}

const list = (words: readonly string[]): string =>
  words.join(words.some((w) => /[,;]/.test(w)) ? ' · ' : ', ') || $localize`nothing`;

const wordOf = (words: Readonly<Record<string, string>>, value: string): string => words[value] ?? value;

function word(field: string, value: string): string {
  if (CHOSEN.includes(field)) return said(value);
  if (field === 'hazards') return wordOf(HAZARD_LABELS, value);
  if (field === 'state') return wordOf(ORDER_STATE_LABELS, value);
  const [group, key] = field.split('.');
  const question = group === 'practice' ? PRACTICE.find((q) => q.key === key) : undefined;
  return question?.choices.find((c) => c.key === value)?.label ?? value;
}
