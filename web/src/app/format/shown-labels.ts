import type { ShownIn } from '@vestigia/core';

/** The ways a studio may read its figures, each with what one looks like. */
export const SHOWN_LABELS: Readonly<
  Record<ShownIn[keyof Omit<ShownIn, 'weight' | 'volume'>], string> & Record<ShownIn['volume'] | 'pounds', string>
> = {
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
  yearMonthDay: 'as 2026 Nov 5',
  monday: 'Monday',
  sunday: 'Sunday',
};
