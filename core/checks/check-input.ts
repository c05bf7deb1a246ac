import type { VatReading } from '../bath/vat';
import type { Vessel } from '../bath/vessel';
import type { WaterFacts } from '../bath/water';
import type { DyestuffNeed } from '../catalogue/catalogue-entry';
import type { Hazard } from '../safety/hazards';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import type { LotPlan } from '../scaling/lot-plan';
import type { RecipeVersion } from '../recipe/recipe';
import type { RecipeStatus } from '../recipe/proof';
import type { Practice } from '../recipe/practice-questions';
import type { IntakeFlag } from './intake-flag';

/** A material as the checks need it. Ceiling in °C. */
export interface CheckedMaterial {
  readonly id: string;
  readonly name: string;
  readonly kind: MaterialKind;
  readonly hazards: readonly Hazard[];
  readonly ceilingC: number | null;
  readonly bringsTannin: boolean;
  /** Which of the catalogue's materials it is. */
  readonly catalogueKey: string | null;
  /** How a dyestuff holds; `null` where it is not known, and of what is no dyestuff. */
  readonly needs: DyestuffNeed | null;
}

/** A stock lot as the checks need it. `receivedOn` is an ISO date, strength in per cent of the reference lot. */
export interface CheckedStockLot {
  readonly id: string;
  readonly tag: string;
  readonly materialId: string;
  readonly receivedOn: string;
  readonly form: MaterialForm | null;
  readonly strengthPercent: number | null;
  /** What is dissolved in a kept liquor, by material; nothing of what is none. */
  readonly contents?: readonly string[] | undefined;
  /** Of a vat: how it was when somebody last looked, and how long ago; `null` where nobody has since it was used. */
  readonly vat?: { readonly reading: VatReading | null; readonly hoursAgo: number | null } | undefined;
}

/** All that is looked over before a lot may start. */
export interface CheckInput {
  readonly plan: LotPlan;
  readonly recipe: RecipeVersion;
  readonly status: RecipeStatus;
  readonly materials: readonly CheckedMaterial[];
  readonly vessels: readonly Vessel[];
  readonly stockLots: readonly CheckedStockLot[];
  readonly intake: { readonly flags: readonly IntakeFlag[]; readonly syntheticPercent: number | null };
  readonly house: Practice;
  readonly water: WaterFacts | null;
  readonly otherWaters: readonly WaterFacts[];
  /** ISO date. */
  readonly today: string;
}
