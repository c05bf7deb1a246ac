import type { FastnessOf, FastnessTest, NewFastnessReading, ReadNewFastnessTest } from '@vestigia/contract';
import type { FastnessGrades, GreyGrade, MadeWith } from '@vestigia/core';
import {
  FASTNESS_PLACES,
  NOTHING_KNOWN,
  WHOLE,
  careText,
  currentEntries,
  daysToFade,
  fadedAfter,
  fadedBetween,
  fitFading,
  foldRun,
  gradeOfChange,
  gradeOfStaining,
  madeWith,
  nextDueDays,
  worstGrade,
} from '@vestigia/core';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { fastnessReadings, fastnessTests, lots, materials, people, stockLots } from '../db/schema';
import { findLot, readEntries } from '../lots/lots-store';
import { findVersion } from '../recipes/recipes-store';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import type { Veil } from '../studio/veil';
import { veiledMadeWith } from './veiled-made-with';

const DAY_MS = 86_400_000;
const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);
const later = (date: string, days: number): string =>
  new Date(Date.parse(date) + days * DAY_MS).toISOString().slice(0, 10);
/** When fading is said to show: the first an eye finds side by side, and one that nobody overlooks. */
const SHOWS = [1, 3];

type ReadingRow = typeof fastnessReadings.$inferSelect;

function graded(row: ReadingRow): { grade: GreyGrade; deltaE00: number | null; byEye: boolean } {
  const { before, after, cloth, typedGrade } = row;
  if (before && after)
    return {
      grade: (cloth === null ? gradeOfChange(before, after) : gradeOfStaining(before, after)).grade,
      deltaE00: fadedBetween(before, after),
      byEye: false,
    };
  return { grade: typedGrade ?? 1, deltaE00: null, byEye: true };
}

/** Every test with what it showed, those due first. */
export async function readFastnessTests(db: Db, veil: Veil | undefined): Promise<FastnessTest[]> {
  const rows = await db
    .select({ test: fastnessTests, number: lots.number, by: { id: people.id, name: people.name } })
    .from(fastnessTests)
    .leftJoin(lots, eq(lots.id, fastnessTests.lotId))
    .innerJoin(people, eq(people.id, fastnessTests.byId))
    .orderBy(asc(fastnessTests.seq));
  const read = await db
    .select({ reading: fastnessReadings, by: { id: people.id, name: people.name } })
    .from(fastnessReadings)
    .innerJoin(people, eq(people.id, fastnessReadings.byId))
    .orderBy(asc(fastnessReadings.seq));
  const tests = rows.map(({ test, number, by }): FastnessTest => {
    const readings = read
      .filter((r) => r.reading.testId === test.id)
      .map(({ reading, by: readBy }) => {
        const { id, cloth, onDate, before, after, note, replacesId, at } = reading;
        const days = Math.max(0, daysBetween(test.startedOn, onDate));
        const when = { onDate, days, at: new Date(at).toISOString(), by: readBy };
        return { id, cloth, before, after, note, replacesId, ...when, ...graded(reading) };
      });
    const standing = currentEntries(readings);
    const own = standing.filter((r) => r.cloth === null);
    const curve =
      test.kind === 'light' && test.place !== null
        ? fitFading(
            own.flatMap(({ days, deltaE00 }) => (deltaE00 === null ? [] : [{ days, deltaE00 }])),
            test.place,
          )
        : null;
    const dueDays = nextDueDays(
      test.kind,
      own.map((r) => r.days),
    );
    const isKept = test.lotId !== null && veil?.lotIds.has(test.lotId);
    return {
      id: test.id,
      kind: test.kind,
      place: test.place,
      name: test.name,
      lot: test.lotId === null || number === null ? null : { id: test.lotId, tag: lotTag(number) },
      madeWith: isKept ? veiledMadeWith(test.madeWith) : test.madeWith,
      cloths: test.cloths,
      startedOn: test.startedOn,
      note: test.note,
      by,
      readings,
      change: worstGrade(own.map((r) => r.grade)),
      staining: worstGrade(standing.filter((r) => r.cloth !== null).map((r) => r.grade)),
      curve: curve && {
        mostDeltaE00: curve.mostDeltaE00,
        timeConstantDays: curve.timeConstantDays,
        residualDeltaE00: curve.residualDeltaE00,
        readings: curve.readings,
        shows: FASTNESS_PLACES.flatMap((place) =>
          SHOWS.map((deltaE00) => ({ place, deltaE00, days: daysToFade(curve, deltaE00, place) })),
        ),
      },
      dueOn: dueDays === null ? null : later(test.startedOn, dueDays),
    };
  });
  return tests.sort((x, y) => ((x.dueOn ?? '9999') < (y.dueOn ?? '9999') ? -1 : 1));
}

async function madeWithOfLot(db: Db, lotId: string): Promise<MadeWith> {
  const lot = await findLot(db, lotId);
  return madeWith(lot.plan, foldRun(await readEntries(db, lotId), lot.plan.steps.length), WHOLE);
}

export async function addFastnessTest(
  db: Db,
  test: ReadNewFastnessTest,
  today: string,
  { now, byId }: By,
): Promise<{ id: string }> {
  if (test.startedOn > today)
    throw new Refusal('refused', $localize`That day is still to come. Write when the test really began.`, {
      reason: 'inFuture',
    });
  const made = test.lotId === null ? NOTHING_KNOWN : await madeWithOfLot(db, test.lotId);
  await db.insert(fastnessTests).values({ ...test, madeWith: made, at: now.toISOString(), byId });
  return { id: test.id };
}

export async function readFastnessTest(
  db: Db,
  testId: string,
  reading: NewFastnessReading,
  today: string,
  { now, byId }: By,
): Promise<{ id: string }> {
  const [test] = await db.select().from(fastnessTests).where(eq(fastnessTests.id, testId));
  if (!test) throw notFound($localize`fastness test`);
  if (reading.onDate > today)
    throw new Refusal('refused', $localize`That day is still to come. Write when it was really looked at.`, {
      reason: 'inFuture',
    });
  if (reading.onDate < test.startedOn)
    throw new Refusal('refused', $localize`That is before the test began. Check the date.`, { reason: 'beforeTest' });
  if (reading.cloth !== null && !test.cloths.includes(reading.cloth))
    throw new Refusal('refused', $localize`No such white cloth was washed with it. Choose one of those that were.`, {
      reason: 'noSuchCloth',
    });
  if (reading.replacesId !== null) {
    const all = await db.select().from(fastnessReadings).where(eq(fastnessReadings.testId, testId));
    const old = all.find((r) => r.id === reading.replacesId);
    if (!old) throw notFound('reading');
    if (!currentEntries(all).includes(old))
      throw new Refusal('alreadyDone', $localize`That reading was corrected already. Correct the newest one.`);
  }
  await db.insert(fastnessReadings).values({ ...reading, testId, at: now.toISOString(), byId });
  return { id: reading.id };
}

interface Pair {
  readonly dyestuff: string;
  readonly mordant: string;
}
const pairsOf = ({ dyestuffs, mordants }: Pick<MadeWith, 'dyestuffs' | 'mordants'>): Pair[] =>
  dyestuffs.flatMap((dyestuff) => (mordants.length === 0 ? [''] : mordants).map((mordant) => ({ dyestuff, mordant })));

/** Of each pair of dyestuff and mordant the worst that was tried, on whatever fibre. */
async function gradePairs(db: Db, pairs: readonly Pair[]): Promise<FastnessOf['pairs']> {
  const tests = await readFastnessTests(db, undefined);
  return pairs.map(({ dyestuff, mordant }) => {
    const own = tests.filter((t) => pairsOf(t.madeWith).some((p) => p.dyestuff === dyestuff && p.mordant === mordant));
    const worst = (kind: FastnessTest['kind'], of: 'change' | 'staining'): GreyGrade | null =>
      worstGrade(own.filter((t) => t.kind === kind).map((t) => t[of]));
    return {
      dyestuff,
      mordant,
      lightChange: worst('light', 'change'),
      washChange: worst('wash', 'change'),
      staining: worst('wash', 'staining'),
      tests: own.length,
    };
  });
}

const worstOf = (pairs: FastnessOf['pairs']): FastnessGrades => ({
  lightChange: worstGrade(pairs.map((p) => p.lightChange)),
  washChange: worstGrade(pairs.map((p) => p.washChange)),
  staining: worstGrade(pairs.map((p) => p.staining)),
});

/** How fast what something was dyed with is. */
export async function readFastnessOf(
  db: Db,
  subject: 'lot' | 'recipeVersion' | 'stockLot',
  id: string,
  today: string,
  veil: Veil | undefined,
): Promise<FastnessOf> {
  if (subject === 'recipeVersion') return known(await gradePairs(db, pairsOf(await madeByRecipe(db, id))));
  if (subject === 'lot') return known(await gradePairs(db, pairsOf(await madeWithOfLot(db, id))));
  const [jar] = await db.select().from(stockLots).where(eq(stockLots.id, id));
  if (!jar) throw notFound('jar');
  const lotId = jar.facts?.fromLotId;
  // Of a private lot the pairs would tell what it was dyed with.
  if (!lotId || veil?.lotIds.has(lotId)) return { pairs: [], care: [], onShelf: null };
  const made = await madeWithOfLot(db, lotId);
  const pairs = await gradePairs(db, pairsOf(made));
  return {
    ...known(pairs),
    onShelf: jar.facts?.light === 'open' ? await fadedBy(db, made, jar.receivedOn, today) : null,
  };
}

const known = (pairs: FastnessOf['pairs']): FastnessOf => ({
  pairs,
  care: pairs.length === 0 ? [] : careText(worstOf(pairs)),
  onShelf: null,
});

/** How far pieces have faded on an open shelf by now, by the worst curve of what they were dyed with. */
async function fadedBy(db: Db, made: MadeWith, since: string, today: string): Promise<FastnessOf['onShelf']> {
  const days = Math.max(0, daysBetween(since, today));
  const own = pairsOf(made);
  const curves = (await readFastnessTests(db, undefined)).flatMap(({ curve, place, madeWith: of }) =>
    curve && place && pairsOf(of).some((p) => own.some((o) => o.dyestuff === p.dyestuff && o.mordant === p.mordant))
      ? [{ ...curve, place }]
      : [],
  );
  if (curves.length === 0) return null;
  return { days, since, deltaE00: Math.max(...curves.map((c) => fadedAfter(c, days, 'openShelf'))) };
}

async function madeByRecipe(db: Db, versionId: string): Promise<Pick<MadeWith, 'dyestuffs' | 'mordants'>> {
  const { body } = await findVersion(db, versionId);
  const ids = [...new Set(body.steps.flatMap((s) => s.doses.map((d) => d.materialId)))];
  const named = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  const ofKind = (kind: string): string[] => named.filter((m) => m.kind === kind).map((m) => m.name);
  return { dyestuffs: ofKind('dyestuff'), mordants: ofKind('mordant') };
}
