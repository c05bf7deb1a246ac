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
  metric: $localize`metric: g and kg, ml and l`,
  pounds: $localize`pounds and ounces`,
  us: $localize`US gal, qt, fl oz`,
  imperial: $localize`imperial gal, qt, fl oz`,
  celsius: '°C',
  fahrenheit: '°F',
  '.': $localize`a point: 1.5`,
  ',': $localize`a comma: 1,5`,
  dayMonthYear: $localize`as 5 Nov 2026`,
  monthDayYear: $localize`as Nov 5, 2026`,
  monday: $localize`Monday`,
  sunday: $localize`Sunday`,
  saturday: $localize`Saturday`,
  yearMonthDay: $localize`as 2026 Nov 5`,
};

/** What is chosen of them under Settings. */
export const SHOWN_FIELDS: readonly {
  readonly key: keyof ShownIn;
  readonly name: string;
  readonly ways: readonly ShownIn[keyof ShownIn][];
}[] = [
  { key: 'weight', name: $localize`Weights are read in`, ways: WEIGHT_SYSTEMS },
  { key: 'volume', name: $localize`Volumes are read in`, ways: LIQUID_SYSTEMS },
  { key: 'temperature', name: $localize`Temperatures are read in`, ways: TEMPERATURE_SCALES },
  { key: 'decimalMark', name: $localize`A fraction is written with`, ways: DECIMAL_MARKS },
  { key: 'days', name: $localize`A day is written`, ways: DAY_FORMS },
  { key: 'weekBegins', name: $localize`The week begins on`, ways: WEEK_BEGINS },
];
