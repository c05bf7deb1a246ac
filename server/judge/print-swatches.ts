import type { LabUnder, PaletteSheet, Swatch } from '@vestigia/contract';
import { SLOTS_ACROSS, SLOTS_A_PAGE, describeColour, sayMadeWith, screenColour } from '@vestigia/core';
import type { Pdf } from '../shared/pdf-sheet';
import { MM, finishPdf, label, line, openPdf } from '../shared/pdf-sheet';

const MARGIN = 15 * MM;
/** Swatches are seen against this grey, on paper as on the screen. */
const MOUNT = '#bdbdbd';

const mount = (pdf: Pdf, lab: LabUnder, x: number, y: number, w: number, h: number): void => {
  pdf.rect(x, y, w, h).fill(MOUNT);
  pdf.rect(x + 2 * MM, y + 2 * MM, w - 4 * MM, h - 4 * MM).fill(screenColour(lab, lab).css);
  pdf.fillColor('black');
};

/** A page of the book: a space to fasten each snippet into, beside what is known of it. */
export function printBookPage(page: number, swatches: readonly Swatch[]): Promise<Uint8Array> {
  const pdf = openPdf($localize`Swatch book, page ${page}`, 'A4', MARGIN);
  const width = pdf.page.width - 2 * MARGIN;
  line(pdf, $localize`Swatch book, page ${page}`, MARGIN, MARGIN, width, { bold: true, size: 14 });
  const [across, down] = [SLOTS_ACROSS, SLOTS_A_PAGE / SLOTS_ACROSS];
  const [w, h] = [width / across, (pdf.page.height - 2 * MARGIN - 12 * MM) / down];
  for (let slot = 1; slot <= SLOTS_A_PAGE; slot++) {
    const [x, y] = [MARGIN + ((slot - 1) % across) * w, MARGIN + 12 * MM + Math.floor((slot - 1) / across) * h];
    const inner = w - 4 * MM;
    pdf
      .lineWidth(0.4)
      .dash(2, {})
      .rect(x, y, inner, 38 * MM)
      .stroke('black')
      .undash();
    const own = swatches.find((s) => s.page === page && s.slot === slot);
    line(pdf, own ? `${slot} · ${own.name}` : String(slot), x, y + 39.5 * MM, inner, { bold: true });
    if (!own) continue;
    const below = label(pdf, own.lot ? `${own.lot.tag}, ${own.lot.colourway}` : '', x, y + 44 * MM, inner, { size: 8 });
    pdf
      .font('plain')
      .fontSize(8)
      .text(
        [sayMadeWith(own.madeWith), own.lab ? describeColour(own.lab) : '', own.note].filter((t) => t).join('. '),
        x,
        below + 2,
        {
          width: inner,
          height: h - 52 * MM,
          ellipsis: true,
        },
      );
  }
  return finishPdf(pdf);
}

/** A palette: its colours side by side on grey, each with its name. A printer’s colours are not the dye’s: it says so. */
export function printPalette({ title, colours }: PaletteSheet): Promise<Uint8Array> {
  const pdf = openPdf(title, 'A4', MARGIN);
  const width = pdf.page.width - 2 * MARGIN;
  line(pdf, title, MARGIN, MARGIN, width, { bold: true, size: 16 });
  const across = 4;
  const [w, h] = [width / across, 52 * MM];
  const perPage = across * 4;
  colours.forEach(({ name, detail = '', lab }, i) => {
    const onPage = i % perPage;
    if (i > 0 && onPage === 0) pdf.addPage();
    const [x, y] = [MARGIN + (onPage % across) * w, MARGIN + 12 * MM + Math.floor(onPage / across) * h];
    mount(pdf, lab, x, y, w, 34 * MM);
    line(pdf, name, x, y + 35 * MM, w - 3 * MM, { bold: true });
    line(pdf, detail, x, y + 39.5 * MM, w - 3 * MM, { size: 8 });
    line(pdf, describeColour(lab), x, y + 43.5 * MM, w - 3 * MM, { size: 8 });
  });
  line(
    pdf,
    $localize`Printed colours are the printer’s: hold the swatches of the book beside it before promising one.`,
    MARGIN,
    pdf.page.height - MARGIN - 4 * MM,
    width,
    { size: 8 },
  );
  return finishPdf(pdf);
}
