/** A jar as it is named to somebody who has to find it. */
export interface NamedStockLot {
  readonly tag: string;
  readonly place: string;
}

/**
 * That a wrong jar was taken, and which is right.
 * @param tag of the jar that was taken
 * @param materialName what is wanted
 * @param right the jars the plan takes it from; none where it has no jar for it
 */
export function sayWrongStockLot(tag: string, materialName: string, right: readonly NamedStockLot[]): string {
  const instead =
    right.length === 0
      ? $localize` and take one that does`
      : $localize` and take ${right.map((r) => (r.place === '' ? r.tag : `${r.tag}, ${r.place}`)).join($localize` or `)}`;
  return $localize`Wrong jar: ${tag} does not hold ${materialName}. Put it back${instead}.`;
}
