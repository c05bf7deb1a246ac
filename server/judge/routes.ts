import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { notFound } from '../shared/problem';
import { studioToday } from '../studio/studio-store';
import { assertLotShown, assertVersionShown, veilFor } from '../studio/veil';
import { addFastnessTest, readFastnessOf, readFastnessTest, readFastnessTests } from './fastness-store';
import { readJarsGave } from './jars-gave';
import { readColours, readNearest } from './known-colours';
import { readDryForecast, readReaders, readRepeatability } from './over-time';
import { measurePatchCard, readPatchCard } from './patch-card';
import { printPatchCard } from './print-card';
import { printLadder } from './print-ladder';
import { printSetTags } from './print-set-tags';
import { printBookPage, printPalette } from './print-swatches';
import { readPieces } from './read-pieces';
import { writeColours, writeSwatchFile } from './swatch-file';
import { addSwatch, editSwatch, readSwatches, takeOutSwatch } from './swatches-store';

export function judgeRoutes(routes: Routes): void {
  bookRoutes(routes);
  fastnessRoutes(routes);
  routes.reads(api.colours, async ({ db, query, person }) => {
    await assertVersionShown(db, query.recipeVersionId, person.id);
    return readColours(db, query, await veilFor(db, person.id));
  });
  routes.reads(api.jarsGave, async ({ db, person }) => readJarsGave(db, await veilFor(db, person.id)));
  routes.reads(api.nearestColours, async ({ db, query: { count, ...lab }, person }) =>
    readNearest(db, lab, count, await veilFor(db, person.id)),
  );
  routes.reads(api.colourFile, async ({ db, query }) => ({
    name: query.format === 'cgats' ? 'readings.cgats.txt' : 'readings.csv',
    type: 'text/plain; charset=utf-8',
    content: await writeColours(db, query.format),
  }));
  routes.reads(api.printPalette, async ({ body }) => ({
    name: 'palette.pdf',
    type: 'application/pdf',
    content: await printPalette(body),
  }));
  routes.reads(api.printSetTags, async ({ body }) => ({
    name: 'sets.pdf',
    type: 'application/pdf',
    content: await printSetTags(body),
  }));
  routes.reads(api.printLadder, async ({ body }) => ({
    name: 'ladder.pdf',
    type: 'application/pdf',
    content: await printLadder(body),
  }));
  routes.reads(api.readPieces, ({ db, id }) => readPieces(db, id));
  routes.reads(api.patchCard, ({ db }) => readPatchCard(db));
  routes.writes(api.measurePatchCard, ['studio'], ({ db, body, now, person }) =>
    measurePatchCard(db, body, { now, byId: person.id }),
  );
  routes.reads(api.printPatchCard, async () => ({
    name: 'card.pdf',
    type: 'application/pdf',
    content: await printPatchCard(),
  }));
  routes.reads(api.repeatability, async ({ db, id, person }) =>
    readRepeatability(db, id, await veilFor(db, person.id)),
  );
  routes.reads(api.readers, ({ db }) => readReaders(db));
  routes.reads(api.dryForecast, ({ db, query: { fibre, ...wet } }) => readDryForecast(db, wet, fibre));
}

function bookRoutes(routes: Routes): void {
  routes.reads(api.swatches, async ({ db, person }) => readSwatches(db, await veilFor(db, person.id)));
  routes.reads(api.bookPage, async ({ db, query, person }) => ({
    name: `swatch-book-${query.page}.pdf`,
    type: 'application/pdf',
    content: await printBookPage(query.page, await readSwatches(db, await veilFor(db, person.id))),
  }));
  routes.reads(api.swatchFile, async ({ db, id, person }) => {
    const veil = await veilFor(db, person.id);
    const [swatch] = await readSwatches(db, veil, id);
    if (!swatch) throw notFound('snippet');
    return {
      name: `swatch-${swatch.page}-${swatch.slot}.json`,
      type: 'application/json',
      content: JSON.stringify(await writeSwatchFile(db, swatch, veil), null, 2),
    };
  });
  routes.writes(api.addSwatch, ['swatches'], ({ db, body, now, person }) =>
    addSwatch(db, body, { now, byId: person.id }),
  );
  routes.writes(api.editSwatch, ['swatches'], ({ db, id, body }) => editSwatch(db, id, body));
  routes.writes(api.takeOutSwatch, ['swatches'], ({ db, id, now }) => takeOutSwatch(db, id, now));
}

function fastnessRoutes(routes: Routes): void {
  routes.reads(api.fastnessTests, async ({ db, person }) => readFastnessTests(db, await veilFor(db, person.id)));
  routes.writes(api.addFastnessTest, ['fastness'], async ({ db, body, now, person }) =>
    addFastnessTest(db, body, await studioToday(db, now), { now, byId: person.id }),
  );
  routes.writes(api.readFastnessTest, ['fastness'], async ({ db, id, body, now, person }) =>
    readFastnessTest(db, id, body, await studioToday(db, now), { now, byId: person.id }),
  );
  routes.reads(api.fastnessOf, async ({ db, query: { subject, id }, now, person }) => {
    if (subject === 'lot') await assertLotShown(db, id, person.id);
    if (subject === 'recipeVersion') await assertVersionShown(db, id, person.id);
    return readFastnessOf(db, subject, id, await studioToday(db, now), await veilFor(db, person.id));
  });
}
