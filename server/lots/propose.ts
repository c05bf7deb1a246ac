import type { Colourway, Proposal, ReadProposalAsk } from '@vestigia/contract';
import type { LotCheck, LotPlan } from '@vestigia/core';
import {
  catalogueEntry,
  checkLot,
  compareThenAndNow,
  findAlternatives,
  hazardsOf,
  dyeDips,
  joinList,
  planEffort,
  practiceDifferences,
  rangedDoses,
  wholeMaterials,
  sayDips,
} from '@vestigia/core';
import { createHash } from 'node:crypto';
import { inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { stockLots } from '../db/schema';
import type { ReadMaterials } from '../stores/plan-materials';
import { readMaterials } from '../stores/plan-materials';
import { readLiquors } from '../stores/liquor-level';
import { readUnfolds } from './unfolds';
import { plannedConditions, readStrengths } from './conditions';
import { readEarlier } from './earlier-lot';
import type { LotRow } from './lots-store';
import type { ProposalInputs } from './proposal-inputs';
import { gather, inputOf, planOrRefuse } from './proposal-inputs';

export interface ProposalWithInputs {
  readonly proposal: Proposal;
  readonly colourway: Colourway;
  readonly plan: LotPlan;
  readonly water: LotRow['water'];
}

/**
 * Works out a lot from what is on the shelf and in the room now, and looks it over. Changes nothing; refuses in
 * core's words.
 */
export async function propose(db: Db, ask: ReadProposalAsk, now: Date): Promise<ProposalWithInputs> {
  const asked = await gather(db, ask, now);
  const { colourway, earlier, version, room, body, label, recipe, bases, known, water, today } = asked;
  const plan = planOrRefuse(ask, asked);
  const stockLots = await readStockLotsOf(db, plan);
  const liquors = await readLiquors(
    db,
    stockLots.map((j) => j.id),
    now,
  );
  const dissolved = await readMaterials(
    db,
    [...liquors.values()].flatMap((l) => l.contents).filter((id) => !known.rows.has(id)),
  );
  const lotsTaken = stockLotsIn(plan, known).map((j) => ({ ...j, ...liquors.get(j.id) }));
  const named = { id: version.id, name: $localize`${version.recipeName}, version ${version.number}` };
  const baseIds = bases.map((b) => b.id);
  const strengths = await readStrengths(
    db,
    stockLots.map((j) => j.id),
  );
  const tagOf = new Map(stockLots.map((j) => [j.id, j.tag]));
  const here = plannedConditions(plan, { recipe: named, baseIds, water, tagOf, strengths });
  const then = earlier && (await readEarlier(db, earlier));
  const factors = then ? compareThenAndNow(then.really, here, then.planned) : [];
  const checks = [
    ...checkLot({
      plan,
      recipe,
      status: version.status,
      materials: [...known.rows.values(), ...dissolved].map((m) => ({
        ...m,
        hazards: hazardsOf({ hazards: m.hazards, catalogueKey: m.facts.catalogueKey }),
        ceilingC: m.facts.ceilingC,
        bringsTannin: m.facts.bringsTannin,
        catalogueKey: m.facts.catalogueKey,
        needs: m.facts.needs ?? catalogueEntry(m.facts.catalogueKey)?.needs ?? null,
      })),
      vessels: room.vessels,
      stockLots: lotsTaken,
      intake: { ...ask.intake, flags: [...new Set([...ask.intake.flags, ...treatmentsOf(lotsTaken, baseIds)])] },
      house: room.house,
      water,
      otherWaters: room.waters,
      today,
    }),
    ...label.map(schoolCheck),
    ...correctionCheck(ask, asked),
  ];
  const proposal: Proposal = {
    understoodAs: asked.understoodAs,
    recipe: {
      id: version.recipeId,
      versionId: version.id,
      name: version.recipeName,
      number: version.number,
      status: version.status,
    },
    plan: plan as Proposal['plan'],
    stockLots,
    factors,
    then: then?.told ?? null,
    checks,
    shades: body.expectedShades.flatMap((e) =>
      bases.filter((b) => b.id === e.baseMaterialId).map((b) => ({ ...e, base: b.name })),
    ),
    effort: planEffort(plan),
    alternatives: findAlternatives(inputOf(ask, asked), plan).map((a) => ({
      ...a,
      batches: [...a.batches],
      ...(a.vesselIds ? { vesselIds: [...a.vesselIds] } : {}),
    })) as Proposal['alternatives'],
    unfolds: await readUnfolds(db, plan),
    ranges: rangesOf(asked),
    schools: practiceDifferences(room.house, body.practice),
    whole: wholeMaterials(asked.recipe.steps),
    digest: createHash('sha256')
      .update(JSON.stringify([version.id, water, plan, factors, checks]))
      .digest('base64url'),
  };
  return { proposal, colourway, plan, water };
}

const schoolCheck = (message: string): LotCheck => ({
  key: `school: ${message}`,
  severity: 'caution',
  protection: false,
  message,
  why: $localize`The version was proven the other way: dye a strike-off before the whole lot.`,
  cites: $localize`asked for with this lot`,
});

/** What was corrected for this lot is said, with what the recipe was proven with. */
function correctionCheck(
  { corrected, added, outOf, strikeOff, dyeTimeShare }: ReadProposalAsk,
  { known, body, inSchool }: ProposalInputs,
): LotCheck[] {
  const changed = corrected.flatMap(({ materialId, share }) => {
    const name = known.rows.get(materialId)?.name;
    const percent = Math.round(Math.abs(share - 1) * 100);
    return name === undefined || percent === 0
      ? []
      : [`${name} ${percent} % ${share > 1 ? $localize`more` : $localize`less`}`];
  });
  for (const { materialId, percentOwf, afterDye } of added)
    changed.push(
      `${percentOwf} % ${known.rows.get(materialId)?.name ?? $localize`of another`} ${afterDye ? $localize`after the dye` : $localize`besides`}`,
    );
  // A strike-off names every jar, as the whole lot is to have them: that corrects nothing.
  for (const materialId of new Set(strikeOff ? [] : outOf.map((o) => o.materialId))) {
    const tags = outOf
      .filter((o) => o.materialId === materialId)
      .map(
        (o) =>
          known.stockLots.get(materialId)?.find((j) => j.stockLotId === o.stockLotId)?.tag ?? $localize`another jar`,
      );
    changed.push($localize`${known.rows.get(materialId)?.name ?? 'one'} out of ${joinList(tags)}`);
  }
  const longer = Math.round(Math.abs(dyeTimeShare - 1) * 100);
  const dipsMore = dyeDips(body.steps) - dyeDips(inSchool.steps);
  if (dipsMore !== 0) changed.push(sayDips(dipsMore));
  else if (longer > 0)
    changed.push($localize`${longer} % ${dyeTimeShare > 1 ? $localize`longer` : $localize`shorter`} in the dye`);
  return changed.length === 0
    ? []
    : [
        {
          key: `corrected: ${changed.join(', ')}`,
          severity: 'caution',
          protection: false,
          message: $localize`Corrected for this lot, beside what the recipe says: ${joinList(changed)}.`,
          why: $localize`The recipe’s version stays as it was proven. What was foretold is only as sure as it says.`,
          cites: $localize`what earlier lots teach`,
        },
      ];
}

async function readStockLotsOf(db: Db, plan: LotPlan): Promise<Proposal['stockLots']> {
  const ids = plan.materials.flatMap((m) => m.picks.flatMap((p) => (p.stockLotId === null ? [] : [p.stockLotId])));
  return ids.length === 0
    ? []
    : db
        .select({ id: stockLots.id, tag: stockLots.tag, place: stockLots.place })
        .from(stockLots)
        .where(inArray(stockLots.id, ids))
        .orderBy(stockLots.tag);
}

/** What was done before to the fibre that is taken: seen at intake, though nobody ticked it. */
const treatmentsOf = (taken: ReturnType<typeof stockLotsIn>, baseIds: readonly string[]): ('mordanted' | 'dyed')[] =>
  taken
    .filter((j) => baseIds.includes(j.materialId))
    .flatMap((j) => (j.treatment === 'finished' ? ['dyed'] : j.treatment === null ? [] : [j.treatment]));

function stockLotsIn(plan: LotPlan, known: ReadMaterials) {
  return plan.materials.flatMap((m) =>
    m.picks.flatMap((p) =>
      (known.stockLots.get(m.materialId) ?? [])
        .filter((j) => j.stockLotId === p.stockLotId)
        .map((j) => ({ ...j, id: j.stockLotId, materialId: m.materialId })),
    ),
  );
}

function rangesOf({ inSchool, body, known }: ProposalInputs): Proposal['ranges'] {
  const taken = rangedDoses(body.steps);
  return rangedDoses(inSchool.steps).map((range, i) => ({
    ...range,
    material: known.rows.get(range.materialId)?.name ?? '',
    percentOwf: taken[i]?.fromPercentOwf ?? range.fromPercentOwf,
  }));
}
