import { CARD, CARD_PATCHES, FINDER, screenColour } from '@vestigia/core';
import { MM, finishPdf, line, openPdf } from '../shared/pdf-sheet';

const MARGIN = 20 * MM;
const SCREEN = { illuminant: 'D65', observer: '2' } as const;

/** The card of known patches, true to its size, on a sheet of A4 to cut out. */
export function printPatchCard(): Promise<Uint8Array> {
  const pdf = openPdf($localize`A card to lay beside pieces in a photograph`, 'A4', MARGIN);
  const [x0, y0] = [MARGIN, MARGIN + 14 * MM];
  const square = (cx: number, cy: number, size: number, fill: string): void => {
    pdf.rect(x0 + (cx - size / 2) * MM, y0 + (cy - size / 2) * MM, size * MM, size * MM).fill(fill);
  };
  line(
    pdf,
    $localize`Lay this card flat beside the pieces, in the same light.`,
    MARGIN,
    MARGIN,
    pdf.page.width - 2 * MARGIN,
    {
      bold: true,
      size: 12,
    },
  );
  pdf
    .lineWidth(0.4)
    .rect(x0, y0, CARD.width * MM, CARD.height * MM)
    .stroke('black');
  for (const cx of [FINDER.inset, CARD.width - FINDER.inset])
    for (const cy of [FINDER.inset, CARD.height - FINDER.inset]) {
      square(cx, cy, FINDER.size, 'black');
      square(cx, cy, (FINDER.size * 5) / 7, 'white');
      square(cx, cy, (FINDER.size * 3) / 7, 'black');
    }
  for (const { x, y, width, height, lab } of CARD_PATCHES)
    pdf.rect(x0 + x * MM, y0 + y * MM, width * MM, height * MM).fill(screenColour({ ...lab, ...SCREEN }, SCREEN).css);
  pdf.fillColor('black');
  const below = y0 + (CARD.height + 8) * MM;
  for (const [i, text] of [
    $localize`Matt paper, no lamination: shine is no colour. Keep it in the dark; print and measure it anew each season.`,
    $localize`Read its twelve patches once with a colour reader, row by row, and write them under Judge, Readers and files.`,
    $localize`Unread, it counts as the printer made it, and every photograph’s error grows by that.`,
  ].entries())
    line(pdf, text, MARGIN, below + i * 5 * MM, pdf.page.width - 2 * MARGIN);
  return finishPdf(pdf);
}
