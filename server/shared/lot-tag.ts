/** What a dye lot is called on tags and in talk. */
export function lotTag(number: number): string {
  return $localize`Lot ${number}`;
}
