import type { LotDetail, Tag } from '@vestigia/contract';
import type { PlannedZone, PlacedPlan, PlannedStep, PlannedWeighing } from '@vestigia/core';
import {
  formatTemperature,
  ZONE_WAYS,
  ZONE_LABELS,
  formatAmount,
  formatVolume,
  knotTag,
  layOutPlaced,
  sayCourse,
  sayMinutes,
  smallestIn,
  sayStepCaution,
  countLabel,
  sayPhBetween,
} from '@vestigia/core';
import type { Pdf } from '../../shared/pdf-sheet';
import { MM, box, drawQr, finishPdf, line, openPdf, label } from '../../shared/pdf-sheet';

const MARGIN = 12 * MM;
const MAX_MARKS = 60;

export interface CardInput {
  readonly lot: LotDetail;
  readonly placed: PlacedPlan | null;
  /** The lot's own code, where it was given one. */
  readonly tag: Tag | undefined;
  readonly paper: 'A4' | 'Letter';
}

/**
 * The bench card: the lot as scaled, with boxes to write in by hand, marks of the pieces, and where the colour goes.
 */
export function printCard({ lot, placed, tag, paper }: CardInput): Promise<Uint8Array> {
  const pdf = openPdf(`${lot.summary.tag} ${lot.summary.colourway.name}`, paper === 'A4' ? 'A4' : 'LETTER', MARGIN);
  const card = new Card(pdf, lot);
  card.head(tag);
  for (const step of lot.plan.steps) card.step(step);
  if (placed) card.placed(placed);
  card.marks();
  card.feet();
  return finishPdf(pdf);
}

/** A zone as it is put on at the step, in a line. */
const sayZone = ({ title, order, fromCm, toCm, minutes, mlPerPiece }: PlannedZone): string =>
  [
    $localize`Turn ${order}, ${title}:title:: ${fromCm} to ${toCm} cm`,
    mlPerPiece === null ? '' : $localize`${mlPerPiece} ml a piece`,
    minutes === 0 ? '' : sayMinutes(minutes),
  ]
    .filter((w) => w !== '')
    .join(', ') + '.';

class Card {
  private y = MARGIN;
  private readonly width: number;

  constructor(
    private readonly pdf: Pdf,
    private readonly lot: LotDetail,
  ) {
    this.width = pdf.page.width - 2 * MARGIN;
  }

  private room(height: number): void {
    if (this.y + height <= this.pdf.page.height - MARGIN - 14) return;
    this.pdf.addPage();
    this.y = MARGIN;
  }

  head(tag: Tag | undefined): void {
    const { summary, plan, recipe, base, water, note } = this.lot;
    const qr = 24 * MM;
    line(this.pdf, `${summary.tag} · ${summary.colourway.name}`, MARGIN, this.y, this.width - qr - 8, {
      bold: true,
      size: 20,
    });
    const facts = [
      $localize`${recipe.name}, version ${recipe.number} · ${countLabel(plan.pieces, 'piece')} · ${Math.round(plan.wof.value)} g of dry fibre · 1:${plan.liquorRatio}`,
      `${plan.groups.length > 1 ? plan.groups.map((g) => $localize`${g.pieces} ${g.pieceWord} of ${g.baseName}`).join(', ') : base.name}${water ? $localize` · water: ${water.name}` : ''}`,
      plan.batches
        .map(
          (b) =>
            $localize`batch ${b.number}:number:: ${countLabel(b.pieces, 'piece')} in ${b.vesselName}, ${formatVolume(b.liquor.value)}`,
        )
        .join(' · '),
      ...(note === '' ? [] : [note]),
    ];
    let y = this.y + 26;
    for (const fact of facts) y = label(this.pdf, fact, MARGIN, y, this.width - qr - 8) + 1;
    drawQr(this.pdf, tag?.code ?? summary.tag, MARGIN + this.width - qr, this.y - 4, qr);
    line(this.pdf, tag?.code ?? summary.tag, MARGIN + this.width - qr, this.y + qr - 6, qr, {
      bold: true,
      size: 9,
      align: 'center',
    });
    this.y = Math.max(y, this.y + qr + 6) + 2;
    for (const [i, label] of [$localize`dyed on`, 'by', $localize`water, pH`].entries())
      box(this.pdf, label, MARGIN + (i * this.width) / 3, this.y, this.width / 3 - 4);
    this.y += 26;
  }

  step(step: PlannedStep): void {
    const heat = [
      sayCourse(step) || (step.temperatureC === undefined ? '' : `${formatTemperature(step.temperatureC)}`),
      sayMinutes(step.durationMin),
      step.ceilingC === undefined ? '' : $localize`never above ${formatTemperature(step.ceilingC)}`,
      step.targetPh ? sayPhBetween(step.targetPh) : '',
    ]
      .filter((w) => w !== '')
      .join(' · ');
    const baths = step.baths
      .map((b) => $localize`${b.vesselName} ${formatVolume(b.liquor.value)}, batch ${b.batches.join(' + ')}`)
      .join(' · ');
    const text = [
      step.instruction,
      step.forWhom,
      baths,
      step.lookFor === '' ? '' : $localize`Look for: ${step.lookFor}`,
      step.lookEveryMin === undefined ? '' : $localize`Look again every ${sayMinutes(step.lookEveryMin)}.`,
      ...(step.kind === 'fibre' ? this.lot.extras.intake.marks.map((m) => `${m.of}: ${m.text}.`) : []),
      ...(step.zones ?? []).map(sayZone),
      ...step.cautions.map(sayStepCaution),
    ]
      .filter((w) => w !== '')
      .join('  ');
    const textHeight = this.pdf.font('plain').fontSize(8.5).heightOfString(text, { width: this.width });
    this.room(16 + textHeight + 26 + step.weighings.length * 21 + 8);
    this.pdf
      .lineWidth(1.4)
      .moveTo(MARGIN, this.y)
      .lineTo(MARGIN + this.width, this.y)
      .stroke('black');
    line(this.pdf, `${step.index + 1}  ${step.title}`, MARGIN, this.y + 3, this.width * 0.55, { bold: true, size: 12 });
    line(this.pdf, heat, MARGIN + this.width * 0.45, this.y + 5, this.width * 0.55, { size: 9.5, align: 'right' });
    this.y = label(this.pdf, text, MARGIN, this.y + 19, this.width, { size: 8.5 }) + 3;
    for (const weighing of step.weighings) this.weighing(weighing);
    const boxes = [$localize`begun at`, $localize`finished at`, 'hottest, °C', 'pH', $localize`what you saw`] as const;
    const shares = [0.13, 0.13, 0.13, 0.1, 0.51];
    let x = MARGIN;
    for (const [i, label] of boxes.entries()) {
      const w = this.width * (shares[i] ?? 0.1);
      box(this.pdf, label, x, this.y, w - 4, 22);
      x += w;
    }
    this.y += 30;
  }

  private weighing(weighing: PlannedWeighing): void {
    const stockLots = weighing.picks
      .map(
        (p) =>
          $localize`${formatAmount(p.amount, weighing.measure)} from ${this.lot.stockLots.find((j) => j.id === p.stockLotId)?.tag ?? $localize`no jar on the shelf`}`,
      )
      .join(', ');
    line(
      this.pdf,
      $localize`${weighing.materialName}, batch ${weighing.forBatches.join(' + ')}`,
      MARGIN,
      this.y + 5,
      this.width * 0.3,
    );
    line(
      this.pdf,
      formatAmount(Math.round(weighing.target.value * smallestIn(weighing.measure)), weighing.measure),
      MARGIN + this.width * 0.3,
      this.y + 3,
      this.width * 0.15,
      { bold: true, size: 12, align: 'right' },
    );
    line(this.pdf, stockLots, MARGIN + this.width * 0.47, this.y + 5, this.width * 0.27, { size: 8.5 });
    box(this.pdf, 'weighed', MARGIN + this.width * 0.75, this.y, this.width * 0.13 - 4);
    box(this.pdf, 'jar', MARGIN + this.width * 0.88, this.y, this.width * 0.12 - 4);
    this.y += 21;
  }

  /** The zones of one piece, over a scale of centimetres; each way has its own hatching. */
  placed(plan: PlacedPlan): void {
    const { zones } = layOutPlaced(plan, 1);
    // A lane for each turn: what is done after something else lies over it on the piece, but not on paper.
    const turns = [...new Set(zones.map((z) => z.order))].sort((one, other) => one - other);
    this.room(40 + turns.length * 30 + zones.length * 11);
    line(this.pdf, $localize`Where the colour goes: ${plan.piece}, ${plan.lengthCm} cm`, MARGIN, this.y, this.width, {
      bold: true,
      size: 11,
    });
    this.y += 20;
    const per = this.width / plan.lengthCm;
    for (const turn of turns) {
      this.pdf.lineWidth(0.8).rect(MARGIN, this.y, this.width, 20).stroke('black');
      for (const zone of zones.filter((z) => z.order === turn)) {
        const [from, to] = [MARGIN + zone.fromCm * per, MARGIN + zone.toCm * per];
        const i = ZONE_WAYS.indexOf(zone.way);
        this.pdf
          .rect(from, this.y, Math.max(1, to - from), 20)
          .stroke('black')
          .save()
          .rect(from, this.y, Math.max(1, to - from), 20)
          .clip();
        for (let x = from - 20; x < to; x += 4 + (i % 4) * 2)
          this.pdf.moveTo(x, this.y + (i % 2 === 0 ? 20 : 0)).lineTo(x + 20, this.y + (i % 2 === 0 ? 0 : 20));
        this.pdf.lineWidth(0.4).stroke('black').restore();
        for (const point of zone.pointsCm)
          this.pdf
            .lineWidth(1.6)
            .moveTo(MARGIN + point * per, this.y - 3)
            .lineTo(MARGIN + point * per, this.y + 23)
            .stroke('black');
      }
      this.y += 28;
    }
    for (const zone of zones) {
      line(
        this.pdf,
        $localize`${zone.fromCm} to ${zone.toCm} cm: ${zone.title}, ${ZONE_LABELS[zone.way]}${zone.pointsCm.length === 0 ? '' : $localize`, at ${zone.pointsCm.join(', ')} cm`}`,
        MARGIN,
        this.y,
        this.width,
        { size: 9 },
      );
      this.y += 11;
    }
    this.y += 8;
  }

  /** The knots each piece wears, so that they can be told apart after the pot. */
  marks(): void {
    const pieces = Math.min(MAX_MARKS, this.lot.plan.pieces);
    const across = 5;
    this.room(24 + Math.ceil(Math.min(pieces, 10) / across) * 15);
    line(
      this.pdf,
      $localize`Marks of the pieces: knots in an undyed cord, read from the loop`,
      MARGIN,
      this.y,
      this.width,
      {
        bold: true,
        size: 11,
      },
    );
    this.y += 17;
    for (let i = 0; i < pieces; i += 1) {
      if (i % across === 0 && i > 0) {
        this.y += 15;
        this.room(15);
      }
      const x = MARGIN + (i % across) * (this.width / across);
      line(this.pdf, String(i + 1), x, this.y, 16, { bold: true });
      this.pdf
        .lineWidth(1)
        .circle(x + 22, this.y + 6, 3.5)
        .stroke('black')
        .moveTo(x + 25.5, this.y + 6)
        .lineTo(x + this.width / across - 14, this.y + 6)
        .stroke('black');
      let at = x + 34;
      for (const knots of knotTag(i + 1)) {
        for (let k = 0; k < knots; k += 1, at += 5) this.pdf.ellipse(at, this.y + 6, 2, 3.4).fill('black');
        at += 12;
      }
    }
    this.y += 20;
    if (this.lot.plan.pieces > MAX_MARKS)
      line(this.pdf, $localize`and so on to ${this.lot.plan.pieces}`, MARGIN, this.y, this.width);
  }

  feet(): void {
    const { start, count } = this.pdf.bufferedPageRange();
    for (let i = start; i < start + count; i += 1) {
      this.pdf.switchToPage(i);
      // Text in the bottom margin would open a page of its own.
      this.pdf.page.margins.bottom = 0;
      line(
        this.pdf,
        $localize`${this.lot.summary.tag} · page ${i - start + 1} of ${count} · Gloves and mask with powders; the supplier’s safety data sheet and your local rules decide. Never for food again.`,
        MARGIN,
        this.pdf.page.height - MARGIN + 2,
        this.width,
        { size: 7 },
      );
    }
  }
}
