/** What a picture is made smaller to: enough to see a weft by, and a tenth of what a telephone makes. */
const LONGEST_PX = 2200;
/** A picture within both is sent as it is. */
const [SMALL_PX, SMALL_BYTES] = [2600, 1_500_000];

/** How large a picture of so many pixels and bytes is to be sent; `undefined`: as it is. */
export function smallerSize(
  width: number,
  height: number,
  bytes: number,
): { readonly width: number; readonly height: number } | undefined {
  const longest = Math.max(width, height);
  if (longest <= 0 || (longest <= SMALL_PX && bytes <= SMALL_BYTES)) return undefined;
  const scale = Math.min(1, LONGEST_PX / longest);
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}
