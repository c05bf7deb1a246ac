/** Minutes as people say them: `45 min`, `2 h 30 min`, `14 d`. */
export function sayMinutes(minutes: number): string {
  const whole = Math.max(0, Math.round(minutes));
  if (whole < 60) return `${whole} min`;
  if (whole < 48 * 60) return `${Math.floor(whole / 60)} h${whole % 60 === 0 ? '' : $localize` ${whole % 60} min`}`;
  const wholeHours = Math.round(whole / 60);
  const [days, hours] = [Math.floor(wholeHours / 24), wholeHours % 24];
  return `${days} d${hours === 0 ? '' : ` ${hours} h`}`;
}
