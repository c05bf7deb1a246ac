import type { StudioFile } from '@vestigia/contract';
import { recipeBody } from '@vestigia/contract';
import type { Lab, StripLevel } from '@vestigia/core';
import { layStrips, levelLabel, sayStripRefusal } from '@vestigia/core';
import type { Body, Teller } from './recipe-book';
import { D65, DAY_MS, iso } from './recipe-book';
import { SETTINGS } from './saltgrass';

interface Tried {
  readonly recipeVersionId: string;
  readonly recipeName: string;
  readonly body: Body;
  readonly byId: string;
  readonly weldId: string;
  readonly baseId: string;
}

/** A jar has enough for strips, whatever a lot takes of it, mg. */
const STRIPS_MG = 1_000_000;

/** Two trials of weld: how much of it, and which harvest. */
export function addStrips(
  doc: StudioFile,
  { random, endMs }: Teller,
  { recipeVersionId, recipeName, body, byId, weldId, baseId }: Tried,
): void {
  const base = doc.materials.find((m) => m.id === baseId);
  const known = doc.materials.map((m) => ({
    id: m.id,
    name: m.name,
    measure: m.measure,
    hazards: m.hazards,
    packet: null,
    spoons: [],
    dryFactor: null,
    stock: doc.stockLots
      .filter((s) => s.materialId === m.id)
      .map((s) => ({
        stockLotId: s.id,
        tag: s.tag,
        free: STRIPS_MG,
        receivedOn: s.receivedOn,
        strengthPercent: s.facts?.strengthPercent ?? null,
        form: s.facts?.form ?? null,
      })),
  }));
  const balance = {
    name: SETTINGS.balanceName,
    resolutionG: SETTINGS.balanceResolutionG,
    capacityG: SETTINGS.balanceCapacityG,
  };
  const trial = (
    name: string,
    factor: 'dose' | 'source',
    totalG: number,
    levels: StripLevel[],
    labs: readonly Lab[],
    daysBefore: number,
    note: string,
  ): void => {
    const atMs = endMs - daysBefore * DAY_MS;
    const layout = layStrips(
      { factor, materialId: weldId, totalG, levels },
      { id: recipeVersionId, recipeName, number: 1, ...recipeBody.parse(body) },
      known,
      { balance, water: null, today: new Date(atMs).toISOString().slice(0, 10) },
    );
    if (!layout.ok) throw new Error(sayStripRefusal(layout.refusal));
    const id = random.id(atMs);
    (doc.stripTrials ??= []).push({
      id,
      name,
      recipeVersionId,
      baseMaterialId: baseId,
      waterId: doc.waters[0]?.id ?? null,
      factor,
      materialId: weldId,
      totalMg: totalG * 1000,
      levels,
      layout: layout.strips as NonNullable<StudioFile['stripTrials']>[number]['layout'],
      note,
      byId,
      at: iso(atMs),
    });
    labs.forEach((lab, i) => {
      const readMs = atMs + 4 * DAY_MS + i * 120_000;
      (doc.stripReadings ??= []).push({
        id: random.id(readMs),
        trialId: id,
        number: i + 1,
        lab,
        ...D65,
        note: '',
        replacesId: null,
        byId,
        at: iso(readMs),
      });
    });
  };
  if (!base) throw new Error('no base to cut strips of');
  const doses = [25, 50, 75, 100, 150, 200].map((value) => ({ value, refId: null, label: levelLabel('dose', value) }));
  trial(
    'Weld, how much',
    'dose',
    72,
    doses,
    [
      { L: 80.9, a: -2.6, b: 29.8 },
      { L: 78.2, a: -3.9, b: 40.6 },
      { L: 76.2, a: -4.5, b: 47 },
      { L: 74.8, a: -4.7, b: 50.9 },
      { L: 73, a: -4.4, b: 55.2 },
      { L: 71.9, a: -3.9, b: 57.1 },
    ],
    33,
    'Levels off past 150 %.',
  );
  const stockLots = doc.stockLots.filter((s) => s.materialId === weldId).slice(0, 3);
  // A studio that has just begun has one harvest.
  if (stockLots.length > 1)
    trial(
      'Weld, which harvest',
      'source',
      36,
      stockLots.map((j) => ({ value: null, refId: j.id, label: j.tag })),
      [
        { L: 74.5, a: -4.8, b: 51.5 },
        { L: 77, a: -4.2, b: 44.3 },
      ].slice(0, stockLots.length),
      12,
      'The wet summer’s is weak.',
    );
}
