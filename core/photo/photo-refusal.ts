import { decimals } from '../quantity/shown-in';

/** Why a picture can’t be measured. */
export type PhotoRefusal =
  | { readonly code: 'tooLarge'; readonly megapixels: number }
  | { readonly code: 'noPatch' }
  | { readonly code: 'noNeutral' }
  | { readonly code: 'outside'; readonly name: string }
  | { readonly code: 'tooSmall'; readonly name: string }
  | { readonly code: 'clipped'; readonly name: string }
  | { readonly code: 'tooDark'; readonly name: string }
  | { readonly code: 'mixedLight'; readonly deltaE: number };

/** Why a picture can’t be measured, in a sentence that says what to do. */
export function sayPhotoRefusal(refusal: PhotoRefusal): string {
  switch (refusal.code) {
    case 'tooLarge':
      return $localize`The picture has ${decimals(refusal.megapixels, 0)} megapixels, more than can be measured at once. Make it smaller, or take it at a lower setting.`;
    case 'noPatch':
      return $localize`Nothing in the picture is known. Lay a grey card or a card of known patches beside the pieces, and mark it.`;
    case 'noNeutral':
      return $localize`No neutral is among the known patches, so the light can’t be told from the dye. Lay a grey card beside the pieces, and mark it.`;
    case 'outside':
      return $localize`“${refusal.name}” lies outside the picture. Mark it again.`;
    case 'tooSmall':
      return $localize`“${refusal.name}” is too small to be measured. Go nearer, or mark more of it.`;
    case 'clipped':
      return $localize`“${refusal.name}” is too bright: the picture has no more to say there. Take it again, darker.`;
    case 'tooDark':
      return $localize`“${refusal.name}” is too dark to be measured. Take the picture again in more light.`;
    case 'mixedLight':
      return $localize`The known patches don’t agree (ΔE ${decimals(refusal.deltaE, 1)} apart from what they are). Two lights may fall on them, or they are marked in the wrong order. Take the picture in one light, out of the sun.`;
  }
}
