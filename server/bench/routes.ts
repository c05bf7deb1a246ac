import type { InstrumentOrder } from '@vestigia/contract';
import { api } from '@vestigia/contract';
import { eq } from 'drizzle-orm';
import type { Router } from 'express';
import { z } from 'zod';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import { recipeVersions, tags } from '../db/schema';
import type { Heard } from '../devices/workbench';
import { openEventStream } from '../http/event-stream';
import type { Routes } from '../http/routes';
import type { Writer } from '../http/write';
import { readLot } from '../lots/lots-store';
import { assertLotShown } from '../studio/veil';
import { readLotFor, veilLot } from '../lots/veiled-lot';
import { keepReadings, readProbe } from '../lots/probe-log';
import { Refusal } from '../shared/problem';
import { attach } from '../stores/materials-store';
import { putAwayCaution, readBench, rememberContainer } from './bench-store';
import { HouseBench, listInstruments } from './house-bench';
import { PotWatch } from './pot-watch';
import { printCard } from './print/bench-card';
import { printTags } from './print/tag-sheet';
import { Rehearsals } from './rehearsals';
import { giveTags, readTag, readTags } from './tags';
import { recordDrafts } from './run-entry-drafts';

const USUAL_POINTS = 2000;
const LONGEST_CODE_LIST = 400;

export function benchRoutes(routes: Routes, context: Context, writer: Writer, router: Router): void {
  const watch = new PotWatch(context.changes);
  context.watchers.push((nowMs) => watch.calls(nowMs));
  const house = new HouseBench(context, writer, watch);
  const rehearsals = new Rehearsals(context);
  context.atClose.push(async () => {
    await house.keep();
    house.close();
    rehearsals.close();
  });

  runRoutes(routes, house);
  probeRoutes(routes, watch);
  instrumentRoutes(routes, house, rehearsals);
  listenRoute(router, context, house, rehearsals);
  rehearsalRoutes(routes, rehearsals);
  printRoutes(routes);
}

/** What is to do, and what was done. */
function runRoutes(routes: Routes, house: HouseBench): void {
  routes.reads(api.bench, ({ db, now, person, query }) =>
    readBench(db, { personId: person.id, now, lotId: query.lot }),
  );
  routes.writes(api.recordDrafts, ['lots', 'stores'], async ({ db, body, now, person }) => {
    if (body.drafts.some((t) => t.entry.kind === 'finish')) await house.keepWithin(db, now);
    const results = await recordDrafts(db, body.drafts, { now, byId: person.id });
    const taken = new Set(results.results.filter((r) => r.ok).map((r) => r.id));
    await house.follow(
      db,
      now,
      body.drafts
        .filter((t) => taken.has(t.entry.id))
        .map((t) => ({ lotId: t.lotId, stepIndex: t.entry.stepIndex, kind: t.entry.kind })),
    );
    return results;
  });
  routes.writes(api.putAwayCaution, [], async ({ db, body, now, person }) => {
    await putAwayCaution(db, person.id, body.caution, now);
    return { id: body.id };
  });
  routes.writes(api.addContainer, ['lots'], ({ db, body }) => rememberContainer(db, body));
  routes.writes(api.attachRunPhoto, ['lots'], async ({ db, id, query, file, files, now, person }) => {
    const lot = await readLot(db, id);
    if (!lot.entries.some((e) => e.id === query.entry))
      throw new Refusal('notFound', $localize`That note is not here yet. It is sent first; then add the photograph.`);
    return attach(
      db,
      { runEntryId: query.entry },
      { id: query.id, name: query.name, file },
      { now, byId: person.id, files },
    );
  });
}

/** Readings of a probe that followed a bath. */
function probeRoutes(routes: Routes, watch: PotWatch): void {
  routes.reads(api.probeLog, async ({ db, id, query }) => {
    const { log, simulated } = await readProbe(db, id, query.step);
    return {
      simulated,
      count: log.length,
      points: log
        .sampled(query.max ?? USUAL_POINTS)
        .map(([ms, c]) => [ms, Math.round(c * 100) / 100] as [number, number]),
    };
  });
  routes.writes(api.recordProbe, [], async ({ db, id, body, now }) => {
    const lot = await readLot(db, id);
    if (!lot.plan.steps[body.stepIndex]) throw new Refusal('notFound', $localize`This lot has no such step.`);
    const points = body.points.map(([ageMs, c]) => [now.getTime() - ageMs, c] as const);
    await keepReadings(db, { id: body.id, lotId: id, stepIndex: body.stepIndex, simulated: false }, points, now);
    await watch.begin(db, id, body.stepIndex, now.getTime());
    watch.add(id, body.stepIndex, points);
    return { id: body.id };
  });
}

function instrumentRoutes(routes: Routes, house: HouseBench, rehearsals: Rehearsals): void {
  routes.reads(api.instruments, () => house.list());
  routes.commands(api.instrumentOrder, async ({ body }) => {
    const order: InstrumentOrder = body;
    if (body.rehearsalId !== null) rehearsals.order(body.rehearsalId, order);
    else await house.order(order);
    return { ok: true as const };
  });
}

function rehearsalRoutes(routes: Routes, rehearsals: Rehearsals): void {
  routes.commands(api.startRehearsal, async ({ db, body, person }) => {
    await assertLotShown(db, body.lotId, person.id);
    return rehearsals.start(db, body, person);
  });
  routes.reads(api.rehearsal, ({ db, id }) => rehearsals.read(db, id));
  routes.commands(api.rehearse, ({ id, body, person }) => Promise.resolve(rehearsals.draft(id, body.drafts, person)));
  routes.commands(api.endRehearsal, ({ id }) => {
    rehearsals.end(id);
    return Promise.resolve({ ok: true as const });
  });
}

/** Tags and the bench card, on paper. */
function printRoutes(routes: Routes): void {
  routes.writes(api.giveTags, [], ({ db, body, now }) => giveTags(db, body.tags, now));
  routes.reads(api.readTag, ({ db, query }) => readTag(db, query.code));
  routes.reads(api.tagSheet, async ({ db, query }) => ({
    name: 'tags.pdf',
    type: 'application/pdf',
    content: await printTags(await readTags(db, codesIn(query.codes)), query.size),
  }));
  routes.reads(api.benchCard, async ({ db, id, query, person }) => {
    const own = await readLotFor(db, id, person.id);
    const lot = query.shop === undefined ? own : veilLot(own);
    const [version] = await db
      .select({ body: recipeVersions.body })
      .from(recipeVersions)
      .where(eq(recipeVersions.id, lot.recipe.versionId));
    return {
      name: `${lot.summary.tag} card.pdf`,
      type: 'application/pdf',
      content: await printCard({
        lot,
        placed: version?.body.placed ?? null,
        tag: await lotCode(db, id),
        paper: query.paper,
      }),
    };
  });
}

function codesIn(text: string): string[] {
  const codes = text
    .split(',')
    .map((c) => c.trim())
    .filter((c) => c !== '');
  if (codes.length === 0 || codes.length > LONGEST_CODE_LIST)
    throw new Refusal('invalid', $localize`Choose which tags to print.`);
  return codes;
}

async function lotCode(db: Db, lotId: string) {
  const lotTag = (await db.select().from(tags).where(eq(tags.lotId, lotId))).find((t) => t.kind === 'lot');
  return lotTag ? (await giveTags(db, [lotTag], new Date(lotTag.at)))[0] : undefined;
}

/** Readings as they come, on a line of their own: server-sent events, one an instrument's word. */
function listenRoute(router: Router, { sessionEnds }: Context, house: HouseBench, rehearsals: Rehearsals): void {
  router.get('/api/instruments/live', (req, res, next) => {
    void (async () => {
      if (!req.session.person) throw new Refusal('notSignedIn', $localize`Come in first.`);
      const rehearsalId = req.query['rehearsal'];
      const send = ({ kind, atMs, message }: Heard): void => {
        // A browser that doesn't keep up misses readings, not the newest one's turn.
        if (!res.writableNeedDrain) res.write(`data: ${JSON.stringify([kind, atMs, message])}\n\n`);
      };
      const asked = rehearsalId === undefined ? undefined : z.uuid().safeParse(rehearsalId).data;
      const bench = rehearsalId === undefined ? await house.open() : rehearsals.bench(asked ?? '');
      const stops = [
        bench.listen(send),
        bench.onHang(() => res.write(`event: hello\ndata: ${JSON.stringify(listInstruments(bench))}\n\n`)),
      ];
      openEventStream(req, res, sessionEnds, listInstruments(bench), () => {
        for (const stop of stops) stop();
      });
    })().catch(next);
  });
}
