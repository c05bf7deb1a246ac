import { Random } from './random';
import type { RecipeSeed } from './saltgrass-recipes';
import { HEAT_SOURCES, PEOPLE, SETTINGS, VESSELS, WATERS } from './saltgrass';
import { COLOURWAYS } from './saltgrass-colourways';
import { RECIPES } from './saltgrass-recipes';
import { MATERIALS } from './saltgrass-materials';
import type { Doc, Dyehouse } from './dyehouse';
import { DAY_MS, iso } from './dyehouse';

export function furnish(house: Dyehouse): Doc {
  const { random, startMs } = house;
  const id = (): string => random.id(startMs - DAY_MS);
  // Furniture that came later has its own chance, so that the story stays what it was.
  const later = new Random(house.sim.seed + 1);
  const heatSources = HEAT_SOURCES.map((h) => ({ id: later.id(startMs - DAY_MS), ...h }));
  const people = PEOPLE.map((p) => ({ id: id(), ...p }));
  const materials = MATERIALS.map((m) => ({
    id: id(),
    name: m.name,
    kind: m.kind,
    measure: m.measure ?? ('weight' as const),
    hazards: m.hazards,
    note: m.note ?? '',
    base: m.base ?? null,
    facts: m.facts ?? {},
  }));
  for (const m of materials) house.materialIds.set(m.name, m.id);
  const who = { byId: people[0]?.id ?? '', at: iso(startMs - DAY_MS) };
  const recipes = RECIPES.map((r) => ({ id: id(), name: r.name }));
  const bodyOf = ({ name: _name, ...r }: RecipeSeed) => ({
    ...r,
    steps: r.steps.map((s) => ({
      ...s,
      doses: s.doses.map(([name, percentOwf]) => ({ materialId: house.materialId(name), percentOwf })),
    })),
  });
  const recipeVersions = recipes.map((r, i) => ({
    id: id(),
    recipeId: r.id,
    number: 1,
    body: bodyOf(RECIPES[i] as RecipeSeed),
    ...who,
  }));
  const recipeStatuses = recipeVersions.map((v) => ({
    id: id(),
    recipeVersionId: v.id,
    status: 'proven' as const,
    reason: 'Four proofs within tolerance',
    ...who,
  }));
  const colourways = COLOURWAYS.map((c) => ({
    id: id(),
    name: c.name,
    recipeVersionId: recipeVersions.find((v) => recipes.find((r) => r.id === v.recipeId)?.name === c.recipe)?.id ?? '',
    baseMaterialId: house.materialId(c.base),
    master: { ...c.shade, illuminant: 'D65' as const, observer: '10' as const },
    toleranceDeltaE: c.toleranceDeltaE,
    note: c.note,
  }));
  return {
    format: 'vestigia-studio',
    formatVersion: 4,
    asOf: house.sim.asOf,
    settings: SETTINGS,
    people,
    heatSources,
    vessels: VESSELS.map(({ heat, ...v }) => ({
      id: id(),
      ...v,
      heatSourceId: heatSources.find((h) => h.name === heat)?.id ?? null,
    })),
    waters: WATERS.map((w) => ({ id: id(), ...w })),
    materials,
    stockLots: [],
    recipes,
    recipeVersions,
    recipeStatuses,
    colourways,
    lots: [],
    movements: [],
    reservations: [],
    runEntries: [],
    readings: [],
    verdicts: [],
  };
}
