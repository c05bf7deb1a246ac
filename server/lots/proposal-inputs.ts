import type { Colourway, LotState, Material, ReadProposalAsk, RecipeBody } from '@vestigia/contract';
import type { LotPlan, PlanBase, PlanInput, RecipeVersion } from '@vestigia/core';
import {
  PRACTICE,
  catalogueEntry,
  changesChain,
  chooseDoses,
  addAfterDye,
  addToDye,
  correctDoses,
  findChoiceOutside,
  planLot,
  practiceChoice,
  practiceMaterials,
  readLotSize,
  replanFor,
  sayPlanRefusal,
  sayWayOut,
  stretchDye,
} from '@vestigia/core';
import { baseFacts, findColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { findVersion } from '../recipes/recipes-store';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import { findMaterial, listMaterials } from '../stores/materials-store';
import { readPlanMaterials } from '../stores/plan-materials';
import type { StudioRoom } from '../studio/room';
import { readRoom } from '../studio/room';
import { studioToday } from '../studio/studio-store';
import { readState } from './lot-progress';
import type { LotRow } from './lots-store';
import { findLot } from './lots-store';

type Version = Awaited<ReturnType<typeof findVersion>>;
/** What a proposal rests on. */
export type ProposalInputs = Awaited<ReturnType<typeof gather>>;

/** All that a proposal rests on, read as it is now. */
export async function gather(db: Db, ask: ReadProposalAsk, now: Date) {
  const colourway = await findColourway(db, ask.colourwayId);
  const earlier = ask.reorderOfId === null ? undefined : await findEarlier(db, ask.reorderOfId, colourway.id);
  const version = await findVersion(db, ask.recipeVersionId ?? colourway.recipe.versionId);
  if (version.id !== colourway.recipe.versionId && version.id !== earlier?.recipeVersionId)
    throw new Refusal(
      'refused',
      $localize`That recipe version is neither the colourway’s nor the earlier lot’s. Choose one of the two.`,
    );
  const room = await readRoom(db);
  const { body: inSchool, label } = await inSchools(db, version.body, ask.schools);
  const chosen = withChosenDoses(inSchool, ask.doses);
  const inDye = addToDye(
    correctDoses(chosen.steps, ask.corrected),
    ask.added.filter((a) => !a.afterDye),
  );
  const dosed = addAfterDye(
    inDye,
    ask.added.filter((a) => a.afterDye),
  );
  const body = { ...chosen, steps: stretchDye(dosed, ask.dyeTimeShare) };
  const { sizes, understoodAs } = await readSizes(db, colourway, ask);
  const known = await readPlanMaterials(db, [
    ...sizes.map((s) => s.base.id),
    ...body.steps.flatMap((s) => s.doses.map((d) => d.materialId)),
    ...(body.placed?.zones ?? []).flatMap((z) => z.materialId ?? []),
  ]);
  refuseUnknownJars(ask, known);
  const bases = sizes.map(({ base, pieces, pieceWeightG }): PlanBase => ({
    ...known.forPlan(base.id),
    fibre: baseFacts(base).fibre,
    blend: baseFacts(base).blend,
    pieceWord: baseFacts(base).pieceWord,
    pieces,
    pieceWeightG,
    ...(ask.ownGoods.includes(base.id) ? { ownGoods: true } : {}),
  }));
  const recipe: RecipeVersion = { id: version.id, recipeName: version.recipeName, number: version.number, ...body };
  const water = ask.waterId === null ? null : findWater(room, ask.waterId);
  const today = await studioToday(db, now);
  return { colourway, earlier, version, room, inSchool, body, label, recipe, bases, known, understoodAs, water, today };
}

/** The same as scaling needs it. */
export function inputOf(ask: ReadProposalAsk, { bases, recipe, water, room, today, known }: ProposalInputs): PlanInput {
  const dosed = [...known.rows.keys()].filter((id) => !bases.some((b) => b.id === id));
  return {
    bases: bases as [PlanBase, ...PlanBase[]],
    recipe,
    water,
    room: room.room,
    balance: room.balance,
    house: room.house,
    today,
    liquorRatio: ask.liquorRatio,
    fills: ask.fills,
    outOf: ask.outOf,
    materials: dosed.map((id) => known.forPlan(id)),
    vessels: chooseVessels(room, ask.vesselIds),
  };
}

/** The plan; refuses in core’s words, with the ways out. */
export function planOrRefuse(ask: ReadProposalAsk, asked: ProposalInputs): LotPlan {
  const planned = planLot(inputOf(ask, asked));
  if (planned.ok) return planned.plan;
  const { refusal } = planned;
  const ways = refusal.ways.map((way) => ({ ...way, message: sayWayOut(way) }));
  throw new Refusal('refused', sayPlanRefusal(refusal), { reason: refusal.code, ...(ways.length > 0 ? { ways } : {}) });
}

/** A jar that is asked for has to be one of its material. */
function refuseUnknownJars({ outOf }: ReadProposalAsk, known: Awaited<ReturnType<typeof readPlanMaterials>>): void {
  for (const { materialId, stockLotId } of outOf)
    if (!(known.stockLots.get(materialId) ?? []).some((j) => j.stockLotId === stockLotId))
      throw new Refusal(
        'refused',
        $localize`A jar that is asked for holds no ${known.rows.get(materialId)?.name ?? $localize`such material of this recipe`}. Plan it as the recipe says, or correct it anew.`,
        { reason: 'jarOfAnother' },
      );
}

/** The chain laid anew for the schools asked for; each is told, since the version was proven otherwise. */
function withChosenDoses(body: RecipeBody, chosen: ReadProposalAsk['doses']): RecipeBody {
  const outside = findChoiceOutside(body.steps, chosen);
  if (outside)
    throw new Refusal(
      'refused',
      $localize`“${outside.stepTitle}” is written for ${outside.fromPercentOwf} to ${outside.toPercentOwf} % of the fibre. Choose within that.`,
      { reason: 'doseOutside' },
    );
  return { ...body, steps: chooseDoses(body.steps, chosen) };
}

async function inSchools(
  db: Db,
  body: RecipeBody,
  schools: ReadProposalAsk['schools'],
): Promise<{ body: Version['body']; label: string[] }> {
  if (schools.length === 0) return { body, label: [] };
  const own = practiceMaterials(
    (await listMaterials(db)).map(({ id, facts }) => ({
      id,
      catalogueKey: facts.catalogueKey,
      needs: facts.needs ?? catalogueEntry(facts.catalogueKey)?.needs ?? null,
    })),
  );
  const label: string[] = [];
  let layout = body;
  for (const { key, answer } of schools) {
    const schoolLabel = `${PRACTICE.find((q) => q.key === key)?.question ?? ''}: ${practiceChoice(key, answer)?.label ?? ''}`;
    // What core lays anew is a body of the same shape.
    const next = {
      ...replanFor(layout, key, answer, own),
      practice: { ...layout.practice, [key]: answer },
    } as RecipeBody;
    if (!changesChain(layout, next))
      throw new Refusal(
        'refused',
        $localize`${schoolLabel}:schoolLabel:: that changes nothing in this recipe’s chain. Leave it as the recipe was proven.`,
        { reason: 'schoolWithoutEffect' },
      );
    label.push($localize`${schoolLabel}, for this lot.`);
    layout = next;
  }
  return { body: layout, label };
}

async function readSizes(db: Db, colourway: Colourway, ask: ReadProposalAsk) {
  const wanted = [{ baseId: colourway.base.id, quantityText: ask.quantityText }, ...ask.also];
  // A base that stands there twice is one: pieces of unlike weight, weighed one by one.
  const baseIds = [...new Set(wanted.map((w) => w.baseId))];
  const sizes: { base: Material; pieces: number; pieceWeightG: number }[] = [];
  const understood: string[] = [];
  for (const baseId of baseIds) {
    const base = await findMaterial(db, baseId);
    const texts = wanted.filter((w) => w.baseId === baseId).map((w) => w.quantityText);
    const size = readLotSize(texts.join(' + '), baseFacts(base));
    if (!size.ok) throw new Refusal('refused', size.message, { reason: size.code });
    sizes.push({ base, ...size.size });
    understood.push(
      baseIds.length === 1 ? size.size.understoodAs : $localize`${size.size.understoodAs} of ${base.name}`,
    );
  }
  return { sizes, understoodAs: understood.join($localize` and `) };
}

/** A failure is worth keeping, and dyeing again better; what nobody judged yet is neither. */
const JUDGED: readonly LotState[] = ['released', 'held', 'refused'];

async function findEarlier(db: Db, id: string, colourwayId: string): Promise<LotRow> {
  const earlier = await findLot(db, id);
  if (earlier.colourwayId !== colourwayId)
    throw new Refusal(
      'refused',
      $localize`${lotTag(earlier.number)} is of another colourway, so this can’t be its reorder.`,
    );
  if (!JUDGED.includes(await readState(db, id)))
    throw new Refusal(
      'refused',
      $localize`${lotTag(earlier.number)} has not been judged, so nobody knows yet what it was. Judge it first.`,
    );
  return earlier;
}

function findWater({ waters }: StudioRoom, id: string): StudioRoom['waters'][number] {
  const found = waters.find((w) => w.id === id);
  if (!found) throw notFound($localize`water source`);
  return found;
}

function chooseVessels({ vessels }: StudioRoom, ids: readonly string[] | undefined): StudioRoom['vessels'] {
  if (ids === undefined) return vessels;
  if (ids.some((id) => !vessels.some((v) => v.id === id))) throw notFound('vessel');
  return vessels.filter((v) => ids.includes(v.id));
}
