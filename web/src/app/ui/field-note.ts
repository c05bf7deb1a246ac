let made = 0;
const notes = new WeakMap<HTMLElement, HTMLElement>();

/**
 * What is wrong with one field, said right under it and tied to it for a screen reader; nothing, where it is mended.
 * A field folded away is unfolded, so that what is said can be seen.
 */
export function sayUnder(field: HTMLElement, message: string | undefined): void {
  notes.get(field)?.remove();
  notes.delete(field);
  const others = (field.getAttribute('aria-describedby') ?? '').split(' ').filter((id) => id !== '' && !isOurs(id));
  field.removeAttribute('aria-invalid');
  if (message !== undefined) {
    const note = document.createElement('p');
    note.className = 'refusal small';
    note.id = `said-${(made += 1)}`;
    note.setAttribute('role', 'alert');
    note.textContent = message;
    (field.closest('mat-form-field') ?? field).insertAdjacentElement('afterend', note);
    field.setAttribute('aria-invalid', 'true');
    for (let fold = field.closest('details'); fold; fold = fold.parentElement?.closest('details') ?? null)
      fold.open = true;
    notes.set(field, note);
    others.push(note.id);
  }
  if (others.length > 0) field.setAttribute('aria-describedby', others.join(' '));
  else field.removeAttribute('aria-describedby');
}

const isOurs = (id: string): boolean => id.startsWith('said-');
