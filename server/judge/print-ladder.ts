import { worded } from '@vestigia/core';
import type { LadderSheet } from '@vestigia/contract';
import { PAPER_MIDDLE, PAPER_STRIPS, PAPER_WITHIN80, describeColour, paperStrip, screenColour } from '@vestigia/core';
import { MM, finishPdf, line, openPdf } from '../shared/pdf-sheet';

const MARGIN = 15 * MM;
const STRIP = 62 * MM;
const ASKS = worded(
  () =>
    ({
      lightness: $localize`As light as: from deeper to paler`,
      hue: $localize`Leaning the same way: round the hues`,
      chroma: $localize`As clear as: from duller to clearer`,
    }) as const,
);

/** A ladder about a colour: three strips of numbered rungs, each cut open at its edge so that a piece slides behind. */
export function printLadder({ title, lab }: LadderSheet): Promise<Uint8Array> {
  const pdf = openPdf($localize`A ladder about ${title}`, 'A4', MARGIN);
  const width = pdf.page.width - 2 * MARGIN;
  line(pdf, $localize`A ladder about ${title}`, MARGIN, MARGIN, width, { bold: true, size: 14 });
  const about = `L* ${lab.L}, a* ${lab.a}, b* ${lab.b}, ${lab.illuminant}/${lab.observer}°: ${describeColour(lab)}`;
  line(pdf, about, MARGIN, MARGIN + 7 * MM, width);
  PAPER_STRIPS.forEach((axis, i) => {
    const y = MARGIN + 20 * MM + i * (STRIP + 8 * MM);
    line(pdf, ASKS[axis], MARGIN, y, width, { bold: true });
    const strip = paperStrip(lab, axis);
    const w = width / strip.length;
    // Rungs touch, on grey: an eye tells small steps only edge to edge.
    pdf.rect(MARGIN, y + 6 * MM, width, STRIP - 14 * MM).fill('#bdbdbd');
    strip.forEach((rung, at) => {
      pdf.rect(MARGIN + at * w, y + 12 * MM, w, STRIP - 26 * MM).fill(screenColour(rung, lab).css);
      pdf.fillColor('black');
      const number = at + 1 === PAPER_MIDDLE ? `${at + 1} ·` : String(at + 1);
      line(pdf, number, MARGIN + at * w + w / 2 - 2 * MM, y + STRIP - 7 * MM, w, { bold: true });
    });
  });
  const below = MARGIN + 20 * MM + PAPER_STRIPS.length * (STRIP + 8 * MM);
  for (const [i, text] of [
    $localize`Matt paper, in daylight. Lay the piece along each strip and note the number that lies nearest: three numbers.`,
    $localize`A printer is no dyer: the truth lies within ΔE00 ${PAPER_WITHIN80} of what this says, four times in five.`,
  ].entries())
    line(pdf, text, MARGIN, below + i * 5 * MM, width);
  return finishPdf(pdf);
}
