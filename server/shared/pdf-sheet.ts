import { languageNow } from '@vestigia/core';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { encode } from 'uqr';

export type Pdf = InstanceType<typeof PDFDocument>;
const resolve = createRequire(import.meta.url).resolve;
const FACE = {
  plain: '@expo-google-fonts/source-sans-3/400Regular/SourceSans3_400Regular.ttf',
  bold: '@expo-google-fonts/source-sans-3/700Bold/SourceSans3_700Bold.ttf',
} as const;
export const MM = 72 / 25.4;
const QUIET_MODULES = 4;

/** A document in the printed face, black on white, tagged with its language. */
export function openPdf(title: string, size: string | [number, number], margin: number): Pdf {
  const pdf = new PDFDocument({
    size,
    margin,
    info: { Title: title, Creator: 'Vestigia' },
    lang: languageNow(),
    bufferPages: true,
  });
  for (const [name, file] of Object.entries(FACE)) pdf.registerFont(name, resolve(file));
  return pdf.font('plain').fontSize(9.5).fillColor('black');
}

export function finishPdf(pdf: Pdf): Promise<Uint8Array> {
  return new Promise((done, failed) => {
    const chunks: Buffer[] = [];
    pdf.on('data', (chunk: Buffer) => chunks.push(chunk));
    pdf.on('end', () => done(new Uint8Array(Buffer.concat(chunks))));
    pdf.on('error', failed);
    pdf.end();
  });
}

/** A QR code as plain squares, with its quiet zone inside `sizePt`. */
export function drawQr(pdf: Pdf, text: string, x: number, y: number, sizePt: number): void {
  const { data, size } = encode(text, { ecc: 'M', border: QUIET_MODULES });
  const module = sizePt / size;
  for (const [row, line] of data.entries()) {
    for (const [column, dark] of line.entries())
      if (dark) pdf.rect(x + column * module, y + row * module, module, module);
  }
  pdf.fill('black');
}

/** One line of text cut to a width, with an ellipsis where it doesn't fit. */
export function line(
  pdf: Pdf,
  text: string,
  x: number,
  y: number,
  width: number,
  { bold = false, size = 9.5, align = 'left' as 'left' | 'right' | 'center' } = {},
): void {
  pdf
    .font(bold ? 'bold' : 'plain')
    .fontSize(size)
    .text(text, x, y, { width, lineBreak: false, ellipsis: true, align, features: ['tnum'] });
  pdf.font('plain');
}

/** Text over as many lines as it takes; says how far down it went. */
export function label(
  pdf: Pdf,
  text: string,
  x: number,
  y: number,
  width: number,
  { bold = false, size = 9.5 } = {},
): number {
  pdf
    .font(bold ? 'bold' : 'plain')
    .fontSize(size)
    .text(text, x, y, { width, features: ['tnum'] });
  pdf.font('plain');
  return pdf.y;
}

/** An empty box to write in, with what belongs there in small over it. */
export function box(pdf: Pdf, label: string, x: number, y: number, width: number, height = 18): void {
  pdf.lineWidth(0.6).rect(x, y, width, height).stroke('black');
  pdf
    .font('plain')
    .fontSize(6.5)
    .fillColor('black')
    .text(label, x + 2, y + 1, { width: width - 4, lineBreak: false, ellipsis: true });
}
