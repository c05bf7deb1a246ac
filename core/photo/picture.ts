/** A picture as its pixels: red, green, blue and alpha of 0-255, row by row from the top left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** A part of a picture, in pixels from its top left. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Whether a part lies in a picture, as far as it has an area at all. */
export const isInside = ({ width, height }: Pick<Picture, 'width' | 'height'>, rect: Rect): boolean =>
  [rect.x, rect.y, rect.width, rect.height].every(Number.isFinite) &&
  rect.x >= 0 &&
  rect.y >= 0 &&
  rect.width >= 1 &&
  rect.height >= 1 &&
  rect.x + rect.width <= width &&
  rect.y + rect.height <= height;
