import { said } from '../words/said';
import { trimZeros } from '../quantity/weight';
import type { AvailableStock } from './allocate';
import type { MaterialForm } from './material-facts';

/** What is known of a stock lot's strength, beside how much of it is free. */
export interface GradedStock extends AvailableStock {
  readonly tag?: string;
  /** Weight for weight against the studio's reference lot, per cent; unknown until tested. */
  readonly strengthPercent?: number | null;
  readonly form?: MaterialForm | null;
  readonly moisturePercent?: number | null;
  /** A solution's strength, g/l; absent for anything that is weighed. */
  readonly gPerL?: number | null;
}

/** What a stock lot is worth against what a recipe was proven with, as a factor. */
export interface Equivalence {
  /** What one gram (or ml) of this stock is worth in grams of what the recipe was proven with. */
  readonly factor: number;
  readonly how: string;
  /** Nothing was measured: it is taken at its word. */
  readonly assumed: boolean;
}

/**
 * Air-dry plant matter still holds about a tenth of water (FAO Agricultural Services Bulletin 109, 1994, storage
 * moisture of dried herbs 8-12 %).
 */
const AIR_DRY_MATTER = 0.9;
const WET_FORMS: readonly MaterialForm[] = ['fresh', 'frozen'];
const DRY_FORMS: readonly MaterialForm[] = ['dried', 'chips', 'ground', 'crystals'];

/**
 * What a stock lot is worth against the form a recipe was proven with. A measured strength settles it, weight for
 * weight; a solution by its grams to the litre; between fresh and dried by dry matter, as measured or by this
 * material's own drying. `undefined` where the forms differ and nothing measured bridges them: it can't stand in.
 * @param provenForm the form the recipe's dose means; `null` where it doesn't say
 * @param dryFactor grams fresh that gave one gram dried, of this material here; `null` where it was never dried
 * @param provenGPerL for a dose in ml of a solution: the strength it means
 */
export function equivalenceOf(
  stock: GradedStock,
  provenForm: MaterialForm | null,
  { dryFactor, provenGPerL = null }: { dryFactor: number | null; provenGPerL?: number | null },
): Equivalence | undefined {
  if (provenGPerL !== null) {
    if (stock.gPerL === undefined || stock.gPerL === null)
      return { factor: 1, how: $localize`its strength is not known; taken as the recipe’s`, assumed: true };
    return stock.gPerL > 0
      ? {
          factor: stock.gPerL / provenGPerL,
          how: $localize`${trimZeros(stock.gPerL, 2)} g/l where the recipe means ${trimZeros(provenGPerL, 2)} g/l`,
          assumed: false,
        }
      : undefined;
  }
  if (stock.strengthPercent !== undefined && stock.strengthPercent !== null)
    return {
      factor: stock.strengthPercent / 100,
      how: $localize`strength ${stock.strengthPercent} % of the reference lot`,
      assumed: false,
    };
  const form = stock.form ?? null;
  if (form === null || provenForm === null || sameMatter(form, provenForm))
    return { factor: 1, how: $localize`strength not tested; taken as the reference`, assumed: true };
  if (!isPlantMatter(form) || !isPlantMatter(provenForm)) return undefined;
  const has = dryMatter(form, stock.moisturePercent ?? null, dryFactor);
  const meant = dryMatter(provenForm, null, dryFactor);
  return has === undefined || meant === undefined
    ? undefined
    : {
        factor: has / meant,
        how: $localize`${said(form)} for ${said(provenForm)}, by dry matter: ${Math.round(has * 100)} % against ${Math.round(meant * 100)} %`,
        assumed: false,
      };
}

const isPlantMatter = (form: MaterialForm): boolean => WET_FORMS.includes(form) || DRY_FORMS.includes(form);
const sameMatter = (a: MaterialForm, b: MaterialForm): boolean =>
  a === b || (DRY_FORMS.includes(a) && DRY_FORMS.includes(b)) || (WET_FORMS.includes(a) && WET_FORMS.includes(b));

/** Share of it that is not water, 0 to 1. */
function dryMatter(form: MaterialForm, moisturePercent: number | null, dryFactor: number | null): number | undefined {
  if (moisturePercent !== null && moisturePercent < 100) return 1 - moisturePercent / 100;
  if (DRY_FORMS.includes(form)) return AIR_DRY_MATTER;
  return dryFactor === null ? undefined : AIR_DRY_MATTER / dryFactor;
}
