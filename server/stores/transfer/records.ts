import type { NewMaterial, StockLotRecord } from '@vestigia/contract';
import { materialRecord, stockLotRecord } from '@vestigia/contract';
import { readMoney, recogniseMaterial } from '@vestigia/core';
import type { z } from 'zod';
import type { Cell, Row } from './read-cells';
import { wrong, idFrom, label, text, orNull, number, grams, flag, json, decimal } from './read-cells';

export const MATERIAL_COLUMNS = [
  'id',
  'name',
  'kind',
  'measure',
  'hazards',
  'catalogueKey',
  'botanicalName',
  'plantPart',
  'forms',
  'fibreGroups',
  'ceilingC',
  'water',
  'phLow',
  'phHigh',
  'light',
  'wash',
  'bringsTannin',
  'needs',
  'seasonFrom',
  'seasonTo',
  'leadTimeDays',
  'reorderPoint',
  'reorderQuantity',
  'packet',
  'base',
  'note',
] as const;
export const STOCK_LOT_COLUMNS = [
  'id',
  'tag',
  'material',
  'receivedOn',
  'bestBefore',
  'place',
  'source',
  'cost',
  'origin',
  'plantPart',
  'stage',
  'form',
  'container',
  'grossG',
  'tareG',
  'moisturePercent',
  'strengthPercent',
  'strengthBasis',
  'strengthLearnt',
  'reference',
  'ownGround',
  'permission',
  'sharePercent',
  'standNote',
  'fromLotId',
  'treatment',
  'light',
  'colour',
  'colourSpectrum',
  'liquor',
  'note',
] as const;

export function checkRecord<S extends z.ZodType>(schema: S, value: unknown): z.infer<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const issue = result.error.issues[0];
  return wrong(
    issue && /[.!?]$/.test(issue.message)
      ? issue.message
      : $localize`“${issue?.path.join('.') ?? ''}” is missing or can’t be used.`,
  ) as never;
}

export function materialFrom(row: Row<(typeof MATERIAL_COLUMNS)[number]>): NewMaterial {
  const season =
    orNull(row.seasonFrom) === null
      ? null
      : { fromMonth: number(row.seasonFrom, 'seasonFrom'), toMonth: number(row.seasonTo, 'seasonTo') };
  return checkRecord(materialRecord, {
    id: orNull(row.id) ?? idFrom('material', text(row.name).trim().toLowerCase()),
    name: text(row.name),
    kind: text(row.kind).trim(),
    measure: orNull(row.measure) ?? 'weight',
    hazards: label(row.hazards),
    note: text(row.note),
    base: json(row.base, 'base'),
    facts: {
      // A table that doesn't say it at all is of before, or not of here: then the name is gone by.
      catalogueKey: row.catalogueKey === undefined ? recogniseMaterial(text(row.name)) : orNull(row.catalogueKey),
      botanicalName: text(row.botanicalName),
      plantPart: text(row.plantPart),
      forms: label(row.forms),
      fibreGroups: label(row.fibreGroups),
      ceilingC: number(row.ceilingC, 'ceilingC'),
      water: orNull(row.water) ?? 'any',
      phLow: number(row.phLow, 'phLow'),
      phHigh: number(row.phHigh, 'phHigh'),
      light: orNull(row.light),
      wash: orNull(row.wash),
      bringsTannin: flag(row.bringsTannin, 'bringsTannin'),
      needs: orNull(row.needs),
      season,
      leadTimeDays: number(row.leadTimeDays, 'leadTimeDays'),
      reorderPoint: number(row.reorderPoint, 'reorderPoint'),
      reorderQuantity: number(row.reorderQuantity, 'reorderQuantity'),
      packet: json(row.packet, 'packet'),
    },
  });
}

export function materialCells(m: NewMaterial): Cell[] {
  const f = m.facts;
  return [
    m.id,
    m.name,
    m.kind,
    m.measure,
    m.hazards.join(' '),
    f.catalogueKey,
    f.botanicalName,
    f.plantPart,
    f.forms.join(' '),
    f.fibreGroups.join(' '),
    f.ceilingC,
    f.water,
    f.phLow,
    f.phHigh,
    f.light,
    f.wash,
    f.bringsTannin ? 'yes' : 'no',
    f.needs,
    f.season?.fromMonth ?? null,
    f.season?.toMonth ?? null,
    f.leadTimeDays,
    f.reorderPoint,
    f.reorderQuantity,
    f.packet === null ? null : JSON.stringify(f.packet),
    m.base === null ? null : JSON.stringify(m.base),
    m.note,
  ];
}

export function stockLotFrom(
  row: Row<(typeof STOCK_LOT_COLUMNS)[number]>,
  materialByName: ReadonlyMap<string, { id: string }>,
): StockLotRecord {
  const material = materialByName.get(text(row.material).trim().toLowerCase());
  if (!material)
    return wrong(
      $localize`There is no material called “${text(row.material).slice(0, 60)}” here. Bring the materials in first.`,
    ) as never;
  const costMinor = orNull(row.cost) === null ? null : readMoney(text(row.cost));
  if (costMinor === undefined)
    return wrong($localize`“${text(row.cost).slice(0, 30)}” is not an amount of money. Write it like 12.50.`) as never;
  const record = checkRecord(stockLotRecord, {
    id: orNull(row.id) ?? idFrom($localize`stock lot`, text(row.tag).trim()),
    materialId: material.id,
    tag: text(row.tag),
    receivedOn: text(row.receivedOn).trim(),
    bestBefore: orNull(row.bestBefore),
    place: text(row.place),
    source: text(row.source),
    note: text(row.note),
    costMinor,
    liquor: json(row.liquor, 'liquor'),
    facts: {
      origin: orNull(row.origin) ?? 'receipt',
      plantPart: text(row.plantPart),
      stage: text(row.stage),
      form: orNull(row.form),
      container: text(row.container),
      grossMg: grams(row.grossG, 'grossG'),
      tareMg: grams(row.tareG, 'tareG'),
      moisturePercent: number(row.moisturePercent, 'moisturePercent'),
      strengthPercent: number(row.strengthPercent, 'strengthPercent'),
      strengthBasis: text(row.strengthBasis),
      strengthLearnt: flag(row.strengthLearnt, 'strengthLearnt'),
      reference: flag(row.reference, 'reference'),
      gathering:
        orNull(row.permission) === null && !flag(row.ownGround, 'ownGround')
          ? null
          : {
              ownGround: flag(row.ownGround, 'ownGround'),
              permission: text(row.permission),
              sharePercent: number(row.sharePercent, 'sharePercent'),
              note: text(row.standNote),
            },
      fromLotId: orNull(row.fromLotId),
      treatment: orNull(row.treatment),
      light: orNull(row.light),
      colour: json(row.colour, 'colour'),
      colourSpectrum: json(row.colourSpectrum, 'colourSpectrum'),
    },
  });
  if (record.bestBefore !== null && record.bestBefore < record.receivedOn)
    wrong($localize`It would be past its best before it came. Check the two dates.`);
  return record;
}

export function stockLotCells(s: StockLotRecord, materialName: string): Cell[] {
  const f = s.facts;
  return [
    s.id,
    s.tag,
    materialName,
    s.receivedOn,
    s.bestBefore,
    s.place,
    s.source,
    s.costMinor === null ? null : (s.costMinor / 100).toFixed(2),
    f.origin,
    f.plantPart,
    f.stage,
    f.form,
    f.container,
    decimal(f.grossMg),
    decimal(f.tareMg),
    f.moisturePercent,
    f.strengthPercent,
    f.strengthBasis,
    f.strengthLearnt ? 'yes' : null,
    f.reference ? 'yes' : 'no',
    f.gathering?.ownGround ? 'yes' : null,
    f.gathering?.permission ?? null,
    f.gathering?.sharePercent ?? null,
    f.gathering?.note ?? null,
    f.fromLotId,
    f.treatment,
    f.light,
    f.colour === null ? null : JSON.stringify(f.colour),
    f.colourSpectrum === null ? null : JSON.stringify(f.colourSpectrum),
    s.liquor === null ? null : JSON.stringify(s.liquor),
    s.note,
  ];
}
