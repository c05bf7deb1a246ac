import { HAZARD_LABELS, PRACTICE, said } from '@vestigia/core';

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
const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:[\d.]+Z$/;

/** What stands in a field of what was changed, as a person reads it. */
export function valueWord(field: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return $localize`nothing`;
  if (value === true) return $localize`yes`;
  if (value === false) return $localize`no`;
  if (typeof value === 'string') return INSTANT.test(value) ? value.slice(0, 16).replace('T', ' ') : word(field, value);
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

function word(field: string, value: string): string {
  if (CHOSEN.includes(field)) return said(value);
  if (field === 'hazards') return (HAZARD_LABELS as Readonly<Record<string, string>>)[value] ?? value;
  const [group, key] = field.split('.');
  const question = group === 'practice' ? PRACTICE.find((q) => q.key === key) : undefined;
  return question?.choices.find((c) => c.key === value)?.label ?? value;
}
