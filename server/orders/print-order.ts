import type { OrderDetail } from '@vestigia/contract';
import { formatDay, formatMoney, formatWeight, joinList } from '@vestigia/core';
import { Refusal } from '../shared/problem';
import { MM, finishPdf, label, line, openPdf } from '../shared/pdf-sheet';
import type { Pdf } from '../shared/pdf-sheet';

const MARGIN_MM = 20;
const FOOT_MM = 25;

/** What stands above both sheets. */
export interface OrderSheet {
  readonly order: OrderDetail;
  readonly studio: { readonly name: string; readonly zone: string };
  readonly customer: { readonly name: string; readonly reach: string };
  readonly now: Date;
}

/** What is offered, at what price, by when: for the customer to agree to. */
export function printQuotation({ order, studio, customer, now }: OrderSheet): Promise<Uint8Array> {
  const sheet = new Sheet(
    $localize`Quotation ${order.number}`,
    studio.name,
    customer,
    formatDay(now.toISOString(), studio.zone),
  );
  let total = 0;
  let isWhole = true;
  for (const l of order.lines) {
    const price = l.priceMinor === null ? null : l.priceMinor * l.pieces;
    if (price === null) isWhole = false;
    else total += price;
    sheet.row(
      String(l.pieces),
      [l.what, colourOf(l), weightOf(l), l.setOf === null ? '' : $localize`in sets of ${l.setOf} that match`],
      price === null
        ? $localize`to be said`
        : $localize`${formatMoney(l.priceMinor ?? 0, order.currency)} each, ${formatMoney(price, order.currency)}`,
    );
  }
  sheet.row(
    '',
    [isWhole ? $localize`Together` : $localize`Together, without what is to be said`],
    formatMoney(total, order.currency),
    true,
  );
  sheet.text(
    order.wantedOn === null
      ? $localize`The day is agreed on when you order.`
      : $localize`Wanted by ${formatDay(`${order.wantedOn}T12:00:00Z`, 'UTC')}.`,
  );
  sheet.text(
    $localize`Plant dyes differ a little from lot to lot. What has to match is dyed in one lot wherever it can be, and later orders are dyed to match this one as nearly as we can.`,
  );
  return sheet.finish();
}

/** Care for the pieces of a lot, by what is known of how fast its colour is. */
export interface CareOfLot {
  readonly tag: string;
  readonly care: readonly string[];
}

/**
 * What goes with the goods: which pieces of which lot, what is still to come, and how to care for them.
 * @throws {Refusal} while nothing is handed over
 */
export function printDeliveryNote(
  { order, studio, customer, now }: OrderSheet,
  careOfLots: ReadonlyMap<string, CareOfLot>,
): Promise<Uint8Array> {
  if (!order.lines.some((l) => l.standing.handedOver > 0))
    throw new Refusal(
      'refused',
      $localize`Nothing of order ${order.number} is handed over yet. Hand over what goes out, then print what goes with it.`,
      {
        reason: 'nothingHandedOver',
      },
    );
  const sheet = new Sheet(
    $localize`Delivery note for order ${order.number}`,
    studio.name,
    customer,
    formatDay(now.toISOString(), studio.zone),
  );
  for (const l of order.lines) {
    const out = l.held.filter((h) => h.handedOver > 0);
    const rest = l.pieces - l.standing.handedOver;
    sheet.row(
      String(l.standing.handedOver),
      [
        l.what,
        colourOf(l),
        ...out.map((h) => {
          const of = h.label === '' ? h.lot.tag : `${h.lot.tag}, ${h.label}`;
          return h.set === null
            ? $localize`${h.handedOver} of ${of}`
            : $localize`Set ${h.set} with ${h.handedOver} of ${of}`;
        }),
      ],
      rest > 0 ? $localize`${rest} still to come` : '',
    );
  }
  sheet.text($localize`Keep the number of the lot: by it the same colour is dyed again.`);
  const own = order.lines.map((l) => l.care).filter((c) => c !== '');
  const byText = new Map<string, string[]>();
  for (const { tag, care } of careOfLots.values()) {
    const text = care.join(' ');
    if (text !== '') byText.set(text, [...(byText.get(text) ?? []), tag]);
  }
  const care = [...new Set(own), ...[...byText].map(([text, tags]) => `${joinList(tags)}: ${text}`)];
  if (care.length > 0) {
    sheet.heading($localize`Care`);
    for (const text of care) sheet.text(text);
  }
  return sheet.finish();
}

type Line = OrderDetail['lines'][number];
const colourOf = ({ colourway, matchLot, broughtNote, brought }: Line): string =>
  [
    colourway?.name ?? '',
    matchLot ? $localize`to match ${matchLot.tag}` : '',
    broughtNote !== ''
      ? $localize`to match what you brought: ${broughtNote}`
      : brought
        ? $localize`to match what you brought`
        : '',
  ]
    .filter((w) => w !== '')
    .join(', ');
const weightOf = ({ pieceWeightG }: Line): string =>
  pieceWeightG === null ? '' : $localize`${formatWeight(pieceWeightG)} each`;

/** An A4 sheet that begins a new page where a row doesn't fit. */
class Sheet {
  private readonly pdf: Pdf;
  private y: number;
  private readonly left = MARGIN_MM * MM;
  private readonly width: number;

  constructor(title: string, studio: string, customer: { readonly name: string; readonly reach: string }, day: string) {
    this.pdf = openPdf(title, 'A4', 0);
    this.width = this.pdf.page.width - 2 * this.left;
    line(this.pdf, studio, this.left, 18 * MM, this.width, { bold: true, size: 13 });
    const below = label(
      this.pdf,
      [customer.name, customer.reach].filter((w) => w !== '').join('\n'),
      this.left,
      38 * MM,
      this.width / 2,
    );
    line(this.pdf, day, this.left, 38 * MM, this.width, { align: 'right' });
    this.y = Math.max(below, 60 * MM) + 8 * MM;
    line(this.pdf, title, this.left, this.y, this.width, { bold: true, size: 13 });
    this.y += 11 * MM;
  }

  row(many: string, what: readonly string[], right: string, bold = false): void {
    this.room(what.length * 5 * MM + 4 * MM);
    const first = this.y;
    line(this.pdf, many, this.left, first, 12 * MM, { align: 'right', bold });
    for (const [i, text] of what.filter((w) => w !== '').entries())
      this.y = label(this.pdf, text, this.left + 16 * MM, this.y, this.width - 76 * MM, {
        bold: bold || i === 0,
        size: i === 0 ? 9.5 : 8.5,
      });
    line(this.pdf, right, this.left + this.width - 58 * MM, first, 58 * MM, { align: 'right', bold });
    this.y += 3 * MM;
    this.pdf
      .lineWidth(0.3)
      .moveTo(this.left, this.y)
      .lineTo(this.left + this.width, this.y)
      .stroke('black');
    this.y += 2 * MM;
  }

  heading(text: string): void {
    this.room(20 * MM);
    line(this.pdf, text, this.left, this.y + 3 * MM, this.width, { bold: true, size: 11 });
    this.y += 10 * MM;
  }

  text(text: string): void {
    this.room(15 * MM);
    this.y = label(this.pdf, text, this.left, this.y + 2 * MM, this.width);
  }

  finish(): Promise<Uint8Array> {
    return finishPdf(this.pdf);
  }

  private room(heightPt: number): void {
    if (this.y + heightPt < this.pdf.page.height - FOOT_MM * MM) return;
    this.pdf.addPage();
    this.y = MARGIN_MM * MM;
  }
}
