import { said } from '../words/said';
import type { VesselMetal } from '../bath/vessel';
import { formatVolume } from '../quantity/volume';
import { countLabel, joinList } from '../quantity/word-list';

/** Another way to dye a lot that doesn't fit as asked, as facts. */
export type WayOut =
  | { readonly code: 'divide'; readonly pieceWord: string }
  | { readonly code: 'smaller'; readonly pieces: number; readonly pieceWord: string }
  | { readonly code: 'ratio'; readonly liquorRatio: number; readonly min: number }
  | { readonly code: 'fills'; readonly fills: number }
  | { readonly code: 'vessel'; readonly metals: readonly VesselMetal[]; readonly needsMl: number };

/** A way out in a sentence. */
export function sayWayOut(way: WayOut): string {
  switch (way.code) {
    case 'divide':
      return $localize`Divide the ${way.pieceWord}.`;
    case 'smaller':
      return $localize`Make it ${countLabel(way.pieces, way.pieceWord)} now, and the rest as a second lot.`;
    case 'ratio':
      return $localize`At 1:${way.liquorRatio} it fits; the recipe allows down to 1:${way.min}. Less room to turn: expect it deeper, and less even.`;
    case 'fills':
      return $localize`In two runs it fits: the vessels are filled twice, one day after the other. The runs may differ: judge them side by side.`;
    case 'vessel':
      return $localize`A vessel of ${joinList(way.metals.map(said), 'or')} that takes ${formatVolume(way.needsMl)} would hold it in one bath; smaller ones beside those there are would do as well.`;
  }
}
