export { formatClock, formatDay, formatMoment, monthName } from './format-date';
export type { ToldTime } from './told-time';
export { readToldTime } from './told-time';
export { addDays, clockOf, dayOf, daysBetween, hoursWithin, instantOf } from './studio-calendar';
