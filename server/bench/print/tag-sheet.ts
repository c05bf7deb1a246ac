import type { Tag } from '@vestigia/contract';
import { MM, drawQr, finishPdf, line, openPdf, label } from '../../shared/pdf-sheet';

/** A waterproof label as label printers take it, and how many of them stand on a sheet of A4. */
const LABEL_MM: readonly [number, number] = [62, 29];
const ACROSS = 3;
const DOWN = 9;

/**
 * Tags to print: readable text, the code large, and a QR code that says the same. One to a label, or on a sheet to
 * cut.
 */
export function printTags(tags: readonly Tag[], size: 'label' | 'sheet'): Promise<Uint8Array> {
  const [w, h] = [LABEL_MM[0] * MM, LABEL_MM[1] * MM];
  const pdf = openPdf($localize`Tags`, size === 'label' ? [w, h] : 'A4', 0);
  const [left, top] = size === 'label' ? [0, 0] : [(pdf.page.width - ACROSS * w) / 2, (pdf.page.height - DOWN * h) / 2];
  tags.forEach((tag, i) => {
    const onPage = size === 'label' ? 0 : i % (ACROSS * DOWN);
    if (i > 0 && onPage === 0) pdf.addPage();
    const [x, y] = [left + (onPage % ACROSS) * w, top + Math.floor(onPage / ACROSS) * h];
    if (size === 'sheet') pdf.lineWidth(0.3).dash(2, {}).rect(x, y, w, h).stroke('black').undash();
    drawQr(pdf, tag.code, x + MM, y + (h - 25 * MM) / 2, 25 * MM);
    const textX = x + 27 * MM;
    const width = w - 29 * MM;
    line(pdf, tag.code, textX, y + 3 * MM, width, { bold: true, size: 15 });
    const below = label(pdf, tag.title, textX, y + 10 * MM, width, { bold: true, size: 9 });
    pdf
      .font('plain')
      .fontSize(7.5)
      .text(tag.detail, textX, below + 1, { width, height: y + h - below - 2 * MM, ellipsis: true });
  });
  return finishPdf(pdf);
}
