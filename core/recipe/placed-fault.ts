/** What is wrong with a plan of placed colour, as facts. Lengths in cm, places in per cent of the piece. */
export type PlacedFault =
  | { readonly code: 'noLength'; readonly maxCm: number }
  | { readonly code: 'noZone' }
  | { readonly code: 'outside'; readonly title: string; readonly fromPercent: number; readonly toPercent: number }
  | { readonly code: 'backwards'; readonly title: string }
  | { readonly code: 'noMl'; readonly title: string }
  | {
      readonly code: 'overlap';
      readonly title: string;
      readonly otherTitle: string;
      readonly fromPercent: number;
      readonly toPercent: number;
    };

/** A fault of placed colour in a sentence that says what to do. */
export function sayPlacedFault(fault: PlacedFault): string {
  switch (fault.code) {
    case 'noLength':
      return $localize`The piece’s length must be above zero and at most ${fault.maxCm / 100} m. Measure it laid flat.`;
    case 'noZone':
      return $localize`There is no zone yet. Add one, or take the placed colour away.`;
    case 'outside':
      return $localize`“${fault.title}” runs from ${percent(fault.fromPercent)} to ${percent(fault.toPercent)}, beyond the piece. Keep it within 0 and 100 %.`;
    case 'backwards':
      return $localize`“${fault.title}” ends before it begins. Write its lower edge first.`;
    case 'noMl':
      return $localize`Say how many ml go on each piece for “${fault.title}”: without it no two pieces are alike.`;
    case 'overlap':
      return $localize`“${fault.title}” and “${fault.otherTitle}” are done in one turn and overlap between ${percent(fault.fromPercent)} and ${percent(fault.toPercent)}. Move an edge, or do one of them in a later turn.`;
  }
}

/** What to take care of where colour is placed, as facts. */
export type PlacedCaution =
  | {
      readonly code: 'bleed';
      readonly title: string;
      readonly otherTitle: string;
      readonly apartPercent: number;
      readonly bleedPercent: number;
    }
  | { readonly code: 'undyedCord' };

/** A caution on placed colour in a sentence. */
export function sayPlacedCaution(caution: PlacedCaution): string {
  switch (caution.code) {
    case 'bleed':
      return $localize`“${caution.title}” and “${caution.otherTitle}” stand ${percent(caution.apartPercent)} apart, nearer than the ${percent(caution.bleedPercent)} that liquid creeps: tie between them, or let the first dry.`;
    case 'undyedCord':
      return $localize`Bind with undyed cord: a dyed thread stains the piece.`;
  }
}

const percent = (value: number): string => `${Math.round(value * 10) / 10} %`;
