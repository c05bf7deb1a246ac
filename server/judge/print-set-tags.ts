import type { SetTags } from '@vestigia/contract';
import { MM, finishPdf, label, line, openPdf } from '../shared/pdf-sheet';

const TAG_MM: readonly [number, number] = [62, 29];
const [ACROSS, DOWN] = [3, 9];

/** A tag for each set, to cut from a sheet of A4: which pieces belong together, of which lot. */
export function printSetTags({ lotTag, colourway, sets, care }: SetTags): Promise<Uint8Array> {
  const [w, h] = [TAG_MM[0] * MM, TAG_MM[1] * MM];
  const pdf = openPdf($localize`Sets of ${lotTag}`, 'A4', 0);
  const [left, top] = [(pdf.page.width - ACROSS * w) / 2, (pdf.page.height - DOWN * h) / 2];
  sets.forEach((marks, i) => {
    const onPage = i % (ACROSS * DOWN);
    if (i > 0 && onPage === 0) pdf.addPage();
    const [x, y] = [left + (onPage % ACROSS) * w, top + Math.floor(onPage / ACROSS) * h];
    pdf.lineWidth(0.3).dash(2, {}).rect(x, y, w, h).stroke('black').undash();
    const inner = w - 6 * MM;
    line(pdf, $localize`Set ${i + 1} of ${sets.length}`, x + 3 * MM, y + 3 * MM, inner, { bold: true, size: 13 });
    line(pdf, `${colourway}, ${lotTag}`, x + 3 * MM, y + 9 * MM, inner, { size: 9 });
    const below = label(pdf, $localize`Pieces ${marks.join(', ')}`, x + 3 * MM, y + 14 * MM, inner, {
      bold: true,
      size: 9,
    });
    pdf
      .font('plain')
      .fontSize(7)
      .text(care.join(' '), x + 3 * MM, below + 1, { width: inner, height: y + h - below - 2 * MM, ellipsis: true });
  });
  return finishPdf(pdf);
}
