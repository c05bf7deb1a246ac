import { isTyping } from './is-typing';

/**
 * Puts the cursor into a field that has become the next thing to fill in, unless somebody is writing elsewhere just
 * now: half a sentence must not end up in a weighing.
 * @param within the part of the page the field belongs to: from its other fields the cursor moves on
 */
export function takeFocus(field: HTMLElement | undefined, within: HTMLElement): void {
  const at = document.activeElement;
  if (isTyping(at) && !within.contains(at)) return;
  field?.focus();
}
