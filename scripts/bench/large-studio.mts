import type { StudioFile } from '@vestigia/contract';
import { simulateDyehouse } from '../../demo/generator/simulate-dyehouse';

const MOVEMENTS = 500_000;
const STOCK_LOTS = 2000;
export const CSV_ROWS = 50_000;

/**
 * Two thousand lots of the demo's dyehouse, its shelf filled up to the size the aims name: half a million comings and
 * goings in two thousand jars.
 */
export function largeStudio(): StudioFile {
  const asOf = new Date(Math.floor(Date.now() / 60_000) * 60_000 - 3_600_000);
  const document = simulateDyehouse({
    seed: 7,
    asOf: asOf.toISOString(),
    days: 7400,
    daysBetweenLots: 3.3,
    supplyScale: 9,
    supplyEvery: 4,
    countEvery: 5,
    lastStartsDaysBefore: [13, 7.95, 2.03, 0.99, 0.06],
  });
  let n = 0;
  const id = (): string => `01800000-0000-7000-8000-${(n += 1).toString(16).padStart(12, '0')}`;
  const materials = document.materials.filter((m) => m.kind !== 'fibre' && m.measure === 'weight');
  const places = Array.from({ length: 40 }, (_, i) => `Shelf ${i + 1}`);
  const byId = document.people[0]?.id ?? '';
  const own: string[] = [];
  while (document.stockLots.length < STOCK_LOTS) {
    own.push(id());
    document.stockLots.push({
      id: own.at(-1) ?? '',
      materialId: materials[n % materials.length]?.id ?? '',
      tag: `EXTRA-${n}`,
      receivedOn: '2010-01-01',
      bestBefore: null,
      place: places[n % places.length] ?? '',
      source: '',
      note: '',
      costMinor: 1000,
    });
  }
  const missing = MOVEMENTS - document.movements.length;
  const startMs = asOf.getTime() - 3000 * 86_400_000;
  for (let i = 0; i < missing; i += 1) {
    const round = Math.floor(i / own.length);
    document.movements.push({
      id: id(),
      stockLotId: own[i % own.length] ?? '',
      kind: round % 10 === 0 ? 'receive' : 'use',
      amount: round % 10 === 0 ? 1_000_000 : -100_000,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note: '',
      byId,
      at: new Date(startMs + (i / missing) * 2999 * 86_400_000).toISOString(),
    });
  }
  return document;
}

/** A year's book of one studio as it would come from elsewhere: fifty thousand rows over two hundred of those jars. */
export function largeTable(document: StudioFile): string {
  const tags = document.stockLots
    .filter((s) => s.tag.startsWith('EXTRA'))
    .slice(0, 200)
    .map((s) => s.tag);
  const book = Date.now();
  const rows = Array.from({ length: CSV_ROWS }, (_, i) => {
    const into = Math.floor(i / tags.length) % 5 === 0;
    return `${tags[i % tags.length]};${into ? 'receive' : 'use'};${into ? '' : '-'}${into ? 500 : 100},5;g;${document.asOf.slice(0, 10)};book ${book} line ${i}`;
  });
  return `tag;kind;amount;unit;at;note\r\n${rows.join('\r\n')}\r\n`;
}
