export { explainDay, readDay } from './read-day';
export { formatClock, formatDay, formatMoment, formatWeekday, monthName } from './format-date';
export type { ToldTime } from './told-time';
export { readToldTime } from './told-time';
export { COPIES_KEPT, OLD_COPY_DAYS, copiesToKeep, isCopyDue, isCopyOld } from './studio-copies';
export { addDays, clockOf, dayOf, daysBetween, hoursWithin, instantOf } from './studio-calendar';
export type { ClockSpan, DaysAway, WeekHours } from './week-hours';
export {
  WEEK_AT_FIRST,
  explainClock,
  explainWeek,
  hoursBetween,
  readClock,
  readWeek,
  sayWeek,
  weekdayOf,
} from './week-hours';
