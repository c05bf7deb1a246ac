import '@angular/localize/init';
import { writeFileSync } from 'node:fs';
import { studioDocument } from '@vestigia/contract';
import { simulateDyehouse } from './simulate-dyehouse';

/** The demo studio: fourteen months that end on a Friday morning with pots in work. */
const document = simulateDyehouse({
  seed: 1847,
  asOf: '2026-11-20T10:40:00.000Z',
  days: 430,
  daysBetweenLots: 5,
  supplyScale: 1,
  supplyEvery: 1,
  countEvery: 9,
  lastStartsDaysBefore: [13, 7.95, 2.03, 1.03, 0.06],
});
studioDocument.parse(document);
writeFileSync(new URL('../saltgrass-dyehouse.json', import.meta.url), `${JSON.stringify(document)}\n`);

console.log(
  `${document.lots.length} lots, ${document.movements.length} movements, ${document.stockLots.length} stock lots, ${document.readings.length} readings, ${document.verdicts.length} verdicts`,
);
