import { studioToday } from '../studio/studio-store';
import type { Conversion } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import type { ConversionInput, ConversionKind, MaterialForm, StockMeasure } from '@vestigia/core';
import { said } from '@vestigia/core';
import {
  CONVERSION_LABELS,
  FIBRE_CONVERSIONS,
  blendStrength,
  checkConversion,
  convertGramsToMilligrams,
  freshToDried,
  hazardsOf,
  readAmount,
  stockConcentration,
} from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { conversions, liquorEntries, materials, movements, stockLots } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal } from '../shared/problem';
import { amountOf, findMaterial, nextTag } from './materials-store';
import { assertFree } from './movements';
import type { Jar } from './stock-lot-store';
import { findStockLot } from './stock-lot-store';

const FORM_AFTER: Readonly<Partial<Record<ConversionKind, MaterialForm>>> = {
  dry: 'dried',
  freeze: 'frozen',
  grind: 'ground',
  dissolve: 'liquor',
};
type Output = NonNullable<Conversion['output']>;
type Material = Awaited<ReturnType<typeof findMaterial>>;
interface Part {
  readonly stockLot: Jar;
  readonly amount: number;
  readonly movementId: string;
}

/** What a packet weighs is written on it; everything else is weighed. Grams. */
const weightOf = ({ stockLot, amount }: Part): number =>
  stockLot.material.measure === 'pieces' ? amount * (stockLot.material.facts.packet?.contentsG ?? 0) : amount / 1000;

/** Changes the form of stock: what goes in leaves its jar, what comes out is a new jar that knows its parents. */
export async function convert(db: Db, conversion: Conversion, { now, byId }: By): Promise<{ id: string }> {
  const { id, kind, note, output } = conversion;
  const parts = await readParts(db, conversion);
  if ((output === null) !== (kind === 'compost'))
    throw new Refusal(
      'refused',
      kind === 'compost'
        ? $localize`Nothing comes out of the compost. Leave the new jar away.`
        : $localize`Say what came out, and into which jar.`,
    );
  const into = output === null ? undefined : await intoMaterial(db, kind, output, parts, now);
  const outAmount = output === null || !into ? 0 : await amountOf(db, output.quantityText, into);
  const inputs: ConversionInput[] = parts.map((p) => ({
    stockLotId: p.stockLot.id,
    tag: p.stockLot.tag,
    weightG: weightOf(p),
    strengthPercent: p.stockLot.facts.strengthPercent,
  }));
  const inG = inputs.reduce((sum, i) => sum + i.weightG, 0);
  const outG = kind === 'dissolve' ? inG : outAmount / 1000;
  const checked = checkConversion(kind, inputs, output?.stockLotId ?? null, outG);
  if (!checked.ok) throw new Refusal('refused', checked.message, { reason: checked.code });
  for (const p of parts) assertFree(p.stockLot, p.amount, { evenReserved: kind === 'compost' });

  const at = now.toISOString();
  const working = kind === 'dry' ? freshToDried(inG, outG) : kind === 'blend' ? blendStrength(inputs) : null;
  const fullNote = [note, working && kind === 'dry' ? `${working.value} ${working.unit}` : '']
    .filter(Boolean)
    .join(' · ');
  await db
    .insert(conversions)
    .values({ id, kind, lossMg: convertGramsToMilligrams(checked.lossG), note: fullNote, at, byId });
  await db.insert(movements).values(
    parts.map((p) => ({
      id: p.movementId,
      stockLotId: p.stockLot.id,
      kind: 'convert' as const,
      amount: -p.amount,
      conversionId: id,
      note:
        kind === 'compost' ? [$localize`to the compost`, note].filter(Boolean).join(' · ') : CONVERSION_LABELS[kind],
      at,
      byId,
    })),
  );
  if (output !== null && into)
    await makeStockLot(db, { kind, output, into, parts, inputs, outAmount, id }, { now, byId });
  return { id: output?.stockLotId ?? id };
}

async function readParts(db: Db, { kind, inputs, output }: Conversion): Promise<Part[]> {
  const parts: Part[] = [];
  for (const { stockLotId, movementId, quantityText } of inputs) {
    if (stockLotId === output?.stockLotId)
      throw new Refusal('refused', $localize`A jar can’t go into itself. Give what comes out a new jar.`, {
        reason: 'itself',
      });
    const stockLot = await findStockLot(db, stockLotId);
    if (stockLot.material.measure === 'volume' && kind !== 'compost' && kind !== 'blend')
      throw new Refusal(
        'refused',
        $localize`${stockLot.tag} is a liquid; it can be blended or poured away, not ${CONVERSION_LABELS[kind]}.`,
      );
    if ((stockLot.material.measure === 'pieces') !== (kind === 'open') && kind !== 'compost')
      throw new Refusal(
        'refused',
        kind === 'open'
          ? $localize`${stockLot.tag} is no packet, so there is nothing to open.`
          : $localize`${stockLot.tag} is kept in packets. Open them first.`,
      );
    const isFibre = stockLot.material.kind === 'fibre';
    if (isFibre !== FIBRE_CONVERSIONS.includes(kind) && kind !== 'compost')
      throw new Refusal(
        'refused',
        isFibre
          ? $localize`${stockLot.tag} is fibre: it can be wound off or cut, not ${CONVERSION_LABELS[kind]}.`
          : $localize`${stockLot.tag} is no fibre, so it can’t be ${CONVERSION_LABELS[kind]}.`,
        { reason: 'fibre' },
      );
    parts.push({ stockLot, amount: await amountOf(db, quantityText, stockLot.material), movementId });
  }
  return parts;
}

const isSame = (kind: ConversionKind, parts: readonly Part[]): boolean =>
  kind !== 'dissolve' && kind !== 'open' && new Set(parts.map((p) => p.stockLot.material.id)).size === 1;

const hazardsOfParts = (parts: readonly Part[]): Material['hazards'] => [
  ...new Set(
    parts.flatMap(({ stockLot: { material } }) =>
      hazardsOf({ hazards: material.hazards, catalogueKey: material.facts.catalogueKey }),
    ),
  ),
];

/** The material that comes out: the same, another one, or a new one made after what went in. */
async function intoMaterial(
  db: Db,
  kind: ConversionKind,
  output: Output,
  parts: readonly Part[],
  now: Date,
): Promise<Material> {
  const measure: StockMeasure =
    kind === 'dissolve' || parts.every((p) => p.stockLot.material.measure === 'volume') ? 'volume' : 'weight';
  const first = parts[0]?.stockLot.material;
  if (!first) throw new Refusal('refused', $localize`Choose what goes in, and how much of it.`);
  const name = output.newMaterial.trim();
  const chosen = output.materialId === null ? first : await findMaterial(db, output.materialId);
  if (name === '') {
    if (chosen.measure !== measure)
      throw new Refusal(
        'refused',
        $localize`What comes out is kept by ${said(measure)}, and ${chosen.name} by ${said(chosen.measure)}. Give it a name of its own.`,
        { reason: 'measure' },
      );
    // What goes into a jar of something else brings its hazards along.
    const hazards = [...new Set([...chosen.hazards, ...hazardsOfParts(parts)])];
    if (hazards.length > chosen.hazards.length)
      await db.update(materials).set({ hazards }).where(eq(materials.id, chosen.id));
    return { ...chosen, hazards };
  }
  const created = {
    id: uuidv7(now),
    name,
    kind: first.kind === 'packet' ? ('dyestuff' as const) : first.kind,
    measure,
    hazards: hazardsOfParts(parts),
    note: '',
    base: first.base && pieceOf(first.base, output),
    facts: {
      ...NO_FACTS,
      ...first.facts,
      // A blend, a solution or what was in a packet is another thing than its first part.
      catalogueKey: isSame(kind, parts) ? first.facts.catalogueKey : null,
      packet: null,
      forms: FORM_AFTER[kind] ? [FORM_AFTER[kind]] : first.facts.forms,
    },
  };
  await db.insert(materials).values(created);
  return { ...created, version: 1, putAway: false };
}

/** Fibre in pieces of another size: the same fibre and colour, by another word and weight. */
function pieceOf(base: NonNullable<Material['base']>, { piece }: Output): NonNullable<Material['base']> {
  if (!piece) return base;
  const weight = readAmount(piece.weightText, 'weight');
  if (!weight.ok)
    throw new Refusal('refused', $localize`What a piece weighs: ${weight.message}`, { reason: 'quantity' });
  return { ...base, pieceWord: piece.word, usualPieceWeightG: weight.amount / 1000 };
}

interface Making {
  readonly id: string;
  readonly kind: ConversionKind;
  readonly output: Output;
  readonly into: Material;
  readonly parts: readonly Part[];
  readonly inputs: readonly ConversionInput[];
  readonly outAmount: number;
}

async function makeStockLot(
  db: Db,
  { id, kind, output, into, parts, inputs, outAmount }: Making,
  { now, byId }: By,
): Promise<void> {
  const at = now.toISOString();
  const today = await studioToday(db, now);
  const parent = parts[0]?.stockLot;
  if (output.bestBefore !== null && output.bestBefore < today)
    throw new Refusal('refused', $localize`That would be past its best before it is made. Check the date.`, {
      reason: 'expiryBeforeReceipt',
    });
  const tare = output.tareText.trim() === '' ? null : readAmount(output.tareText, 'weight');
  if (tare && !tare.ok)
    throw new Refusal('refused', $localize`The container alone: ${tare.message}`, { reason: 'quantity' });
  const strength = kind === 'blend' ? blendStrength(inputs) : null;
  const facts = {
    ...NO_STOCK_FACTS,
    origin: 'made' as const,
    form: FORM_AFTER[kind] ?? parent?.facts.form ?? null,
    plantPart: parent?.facts.plantPart ?? '',
    stage: parent?.facts.stage ?? '',
    container: output.container,
    // Mordanted or dyed fibre stays what it is, and of the lot it came from.
    fromLotId: parent?.facts.fromLotId ?? null,
    treatment: parent?.facts.treatment ?? null,
    tareMg: tare?.ok ? tare.amount : null,
    strengthPercent:
      strength?.value ?? (kind === 'grind' || kind === 'open' ? (parent?.facts.strengthPercent ?? null) : null),
    strengthBasis: strength ? $localize`by weight from its parts` : '',
  };
  const source = parts.map((p) => p.stockLot.tag).join(' + ');
  await db.insert(stockLots).values({
    id: output.stockLotId,
    materialId: into.id,
    tag: output.tag === '' ? await nextTag(db, into.name) : output.tag,
    receivedOn: today,
    bestBefore: output.bestBefore,
    place: output.place,
    source: source.slice(0, 200),
    note: '',
    facts,
  });
  await db.insert(movements).values({
    id: output.movementId,
    stockLotId: output.stockLotId,
    kind: 'convert',
    amount: outAmount,
    conversionId: id,
    note: $localize`${CONVERSION_LABELS[kind]} from ${source}`.slice(0, 2000),
    at,
    byId,
  });
  if (kind !== 'dissolve') return;
  const working = stockConcentration(
    inputs.reduce((sum, i) => sum + i.weightG, 0),
    outAmount / 1000,
  );
  const contents = parts.map((p) => ({
    materialId: p.stockLot.material.id,
    name: p.stockLot.material.name,
    grams: weightOf(p),
  }));
  await db.insert(liquorEntries).values({
    id: uuidv7(now),
    stockLotId: output.stockLotId,
    kind: 'save',
    after: {
      what: 'stockSolution',
      vessel: output.container,
      contents,
      volumeUl: outAmount,
      working,
      signs: [],
      vat: null,
      at,
    },
    note: '',
    at,
    byId,
  });
}
