/** Keys typed into a field are words, not commands. */
export function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/** Something stands in the field already: a key pressed there would end up in it, or send it. */
export function isHalfWritten(target: EventTarget | null): boolean {
  if (!isTyping(target)) return false;
  const text = 'value' in (target as object) ? (target as HTMLInputElement).value : (target as HTMLElement).textContent;
  return text.trim() !== '';
}
