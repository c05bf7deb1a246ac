/** Whether what somebody looks for in a list stands in any of a row's texts; nothing written fits all. */
export const fitsWords = (sought: string, ...texts: readonly string[]): boolean =>
  texts.join(' ').toLowerCase().includes(sought.trim().toLowerCase());
