import type { ShownIn } from '@vestigia/core';
import {
  DAY_FORMS,
  DECIMAL_MARKS,
  LIQUID_SYSTEMS,
  TEMPERATURE_SCALES,
  WEEK_BEGINS,
  WEIGHT_SYSTEMS,
} from '@vestigia/core';

/** The ways a studio may read its figures, each with what one looks like. */
export const SHOWN_LABELS: Readonly<Record<ShownIn[keyof ShownIn], string>> = {
  metric: 'metric: g and kg, ml and l',
  pounds: 'pounds and ounces',
  us: 'US gal, qt, fl oz',
  imperial: 'imperial gal, qt, fl oz',
  celsius: '°C',
  fahrenheit: '°F',
  '.': 'a point: 1.5',
  ',': 'a comma: 1,5',
  dayMonthYear: 'as 5 Nov 2026',
  monthDayYear: 'as Nov 5, 2026',
  monday: 'Monday',
  sunday: 'Sunday',
  saturday: 'Saturday',
  yearMonthDay: 'as 2026 Nov 5',
};

/** What is chosen of them under Settings. */
export const SHOWN_FIELDS: readonly {
  readonly key: keyof ShownIn;
  readonly name: string;
  readonly ways: readonly ShownIn[keyof ShownIn][];
}[] = [
  { key: 'weight', name: 'Weights are read in', ways: WEIGHT_SYSTEMS },
  { key: 'volume', name: 'Volumes are read in', ways: LIQUID_SYSTEMS },
  { key: 'temperature', name: 'Temperatures are read in', ways: TEMPERATURE_SCALES },
  { key: 'decimalMark', name: 'A fraction is written with', ways: DECIMAL_MARKS },
  { key: 'days', name: 'A day is written', ways: DAY_FORMS },
  { key: 'weekBegins', name: 'The week begins on', ways: WEEK_BEGINS },
];
