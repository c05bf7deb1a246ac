/** What every draft kept in the tablet is stored under, before whose it is and of which form. */
export const DRAFTS = 'vestigia-draft ';

/** Nothing of the studio stays in a tablet that somebody has left. */
export function forgetDrafts(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(DRAFTS)) localStorage.removeItem(key);
}
