import { said } from '../words/said';
import type { FibreKind } from '../bath/fibre';
import type { VesselMetal } from '../bath/vessel';
import { formatVolume } from '../quantity/volume';
import { formatWeight } from '../quantity/weight';
import { countLabel, joinList } from '../quantity/word-list';
import type { ChainFault } from '../recipe/chain-fault';
import { sayChainFault } from '../recipe/chain-fault';
import type { DoseUnknown } from './dose-unknown';
import { sayDoseUnknown } from './dose-unknown';
import type { WayOut } from './way-out';

/** Why a lot can't be planned as asked, as facts. Weights in g, volumes in ml, temperatures in °C. */
export type PlanRefusalFact =
  | { readonly code: 'chainFault'; readonly fault: ChainFault }
  | {
      readonly code: 'fibreNotSuited';
      readonly recipeName: string;
      readonly fibres: readonly FibreKind[];
      readonly baseName: string;
      readonly fibre: FibreKind;
    }
  | {
      readonly code: 'ratioOutside';
      readonly recipeName: string;
      readonly liquorRatio: number;
      readonly min: number;
      readonly max: number;
    }
  | {
      readonly code: 'noVesselOfMetal';
      /** Of the first step that wants it, where the recipe has steps. */
      readonly stepTitle: string | null;
      /** None where the steps that share the bath have no metal in common. */
      readonly metals: readonly VesselMetal[];
      readonly anyOwned: boolean;
    }
  | { readonly code: 'doseUnknown'; readonly unknown: DoseUnknown }
  | {
      readonly code: 'pieceTooBig';
      readonly pieceWord: string;
      readonly pieceWeightG: number;
      readonly liquorRatio: number;
      readonly vesselName: string;
      readonly workingMl: number;
    }
  | {
      readonly code: 'bathTooBig';
      readonly stepTitle: string;
      readonly vesselName: string;
      readonly metals: readonly VesselMetal[];
    }
  | {
      readonly code: 'potTakenTwice';
      readonly vesselName: string;
      readonly stepTitle: string;
      readonly otherTitle: string;
    }
  | {
      readonly code: 'lotTooBig';
      readonly pieces: number;
      readonly pieceWord: string;
      readonly stepTitle: string | null;
      readonly maxPieces: number;
      readonly liquorRatio: number;
    };

/** Why a lot can't be planned as asked, and other ways that were found to work. */
export type PlanRefusal = PlanRefusalFact & { readonly ways: readonly WayOut[] };

/** A refusal, with the ways out where there are any. */
export const refusal = (fact: PlanRefusalFact, ways: readonly WayOut[] = []): PlanRefusal => ({ ...fact, ways });

/** Why a lot can't be planned, in a sentence that says what to do. */
export function sayPlanRefusal(refused: PlanRefusalFact): string {
  switch (refused.code) {
    case 'chainFault':
      return sayChainFault(refused.fault);
    case 'doseUnknown':
      return sayDoseUnknown(refused.unknown);
    case 'fibreNotSuited':
      return $localize`${refused.recipeName} is a recipe for ${joinList(refused.fibres.map(said))}; ${refused.baseName} is ${said(refused.fibre)}. Choose a recipe proven on ${said(refused.fibre)}.`;
    case 'ratioOutside':
      return $localize`1:${refused.liquorRatio} is outside what ${refused.recipeName} allows: 1:${refused.min} to 1:${refused.max}. Choose one within.`;
    case 'noVesselOfMetal': {
      const { stepTitle, metals } = refused;
      if (metals.length === 0)
        return $localize`The steps that share the bath of “${stepTitle ?? $localize`this recipe`}” allow no metal in common. Give one of them a bath of its own.`;
      return $localize`${stepTitle === null ? $localize`This recipe` : `“${stepTitle}”`} wants a vessel of ${joinList(metals.map(said), 'or')}, and none was chosen or owned${refused.anyOwned ? '' : $localize`:why no vessel is of the metal:: there is no vessel yet`}. Add one under Studio, or choose another recipe.`;
    }
    case 'pieceTooBig':
      return $localize`One ${refused.pieceWord} of ${formatWeight(refused.pieceWeightG)} at 1:${refused.liquorRatio} needs more than ${refused.vesselName}, the biggest, holds (${formatVolume(refused.workingMl)}). Divide the ${refused.pieceWord}, or add a bigger vessel.`;
    case 'bathTooBig':
      return $localize`A single piece is more than ${refused.vesselName} holds for “${refused.stepTitle}”, and no other vessel of ${joinList(refused.metals.map(said), 'or')} is bigger. Divide the pieces, or add a bigger vessel.`;
    case 'potTakenTwice':
      return $localize`“${refused.stepTitle}” and “${refused.otherTitle}” are in use at the same time, and ${refused.vesselName} is the only vessel for both. Choose another vessel too, or add one under Studio.`;
    case 'lotTooBig':
      return $localize`${countLabel(refused.pieces, refused.pieceWord)} are more than the vessels${refused.stepTitle === null ? '' : $localize` for “${refused.stepTitle}”`} hold together: ${refused.maxPieces} is the most at 1:${refused.liquorRatio}. Make two lots, or add a vessel.`;
  }
}
