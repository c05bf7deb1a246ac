import type { LegNow, PlannedStep } from '@vestigia/core';
import { sayLeg } from '@vestigia/core';

/** A leg of a course, and which pass of how many it is. */
export function legLabelOf({ course }: Pick<PlannedStep, 'course'>, { leg, pass, passes }: LegNow): string {
  const isDipped = course.some((l) => l.do === 'air');
  const where = leg.do === 'air' ? $localize`out, airing` : sayLeg(leg);
  return passes > 1 ? $localize`${where} · ${isDipped ? $localize`dip ` : ''}${pass} of ${passes}` : where;
}
