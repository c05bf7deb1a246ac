/** What a dye lot is called in files that go from house to house, whoever takes them out. */
export const lotInFile = (number: number): string => `Lot ${number}`;

/** What a dye lot is called on tags and in talk. */
export function lotTag(number: number): string {
  return $localize`Lot ${number}`;
}
