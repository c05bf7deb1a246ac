import { sayMinutes } from '@vestigia/core';

/** Time left as a clock shows it: `12:05`, from an hour on `2 h 10 min`; never below nothing. */
export function clockLabel(ms: number): string {
  const s = Math.max(0, Math.floor(ms / 1000));
  return s >= 3600 ? sayMinutes(s / 60) : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}
