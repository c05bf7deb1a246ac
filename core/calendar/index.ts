export { formatClock, formatDay, formatMoment, monthName } from './format-date';
export { addDays, clockOf, dayOf, daysBetween, hoursWithin, instantOf } from './studio-calendar';
