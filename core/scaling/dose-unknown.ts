import { said } from '../words/said';
import { sayPh } from '../quantity/say-ph';
import type { StockMeasure } from '../quantity/amount';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import { sayKitchenUnit } from '../quantity/volume';
import type { PhRefusal } from '../bath/ph-refusal';
import { sayPhRefusal } from '../bath/ph-refusal';

/** Why a dose can't be turned into an amount, as facts. */
export type DoseUnknown = { readonly materialName: string } & (
  | { readonly code: 'packetUnknown' }
  | { readonly code: 'spoonNotTaught'; readonly unit: KitchenUnit; readonly system: VolumeSystem }
  | { readonly code: 'waterPhUnknown'; readonly targetPh: number }
  | { readonly code: 'ph'; readonly refusal: PhRefusal }
  | { readonly code: 'strengthUnknown' }
  | { readonly code: 'unitDoesNotFit'; readonly measure: StockMeasure }
  | { readonly code: 'notALiquor' }
  | { readonly code: 'keptByVolume' }
  | { readonly code: 'countedInPackets' }
);

/** Why a dose can't be measured, in a sentence that says what to do. */
export function sayDoseUnknown(unknown: DoseUnknown): string {
  const name = unknown.materialName;
  switch (unknown.code) {
    case 'packetUnknown':
      return $localize`${name} is dosed by the packet, and nothing says how much fibre one dyes. Write it on the material’s page in Stores.`;
    case 'spoonNotTaught':
      return $localize`${name} is dosed by the ${sayKitchenUnit(unknown.unit, unknown.system)}, and that spoon has not been taught with it. Weigh a few level spoonfuls on the material’s page in Stores.`;
    case 'waterPhUnknown':
      return $localize`${name} brings the bath to ${sayPh(unknown.targetPh)}, and the pH of the water is not known. Choose a water whose pH was tested.`;
    case 'ph':
      return sayPhRefusal(unknown.refusal);
    case 'strengthUnknown':
      return $localize`${name} is weighed, and the strength of its solution is not known. Write how many grams go into a litre, or dose it by weight.`;
    case 'unitDoesNotFit':
      return $localize`${name} is kept by ${said(unknown.measure)}, and the dose for the bath is in another measure. Write the dose as it is kept.`;
    case 'notALiquor':
      return $localize`${name} is to be the liquor of the bath, and it is not kept by volume. Keep the bath as a liquor in Stores first.`;
    case 'keptByVolume':
      return $localize`${name} is kept by volume, and this dose is a weight. Dose it as ml of a solution, or from a jar kept by weight.`;
    case 'countedInPackets':
      return $localize`${name} is counted, and never opened by halves. Dose it by the packet or by the piece.`;
  }
}
