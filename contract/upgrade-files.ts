import { readPlanCaution, readStepCaution, recogniseMaterial } from '@vestigia/core';

/** Old key → today's. */
type Renaming = Readonly<Record<string, string>>;
type Json = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The same value with keys renamed, at every depth. */
function renameKeys(value: unknown, renaming: Renaming): unknown {
  if (Array.isArray(value)) return value.map((item) => renameKeys(item, renaming));
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [renaming[key] ?? key, renameKeys(inner, renaming)]),
  );
}

const eachOf = (list: unknown, change: (item: Json) => Json): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isObject(item) ? change(item) : item)) : list;

/** The first version measured everything by weight and said so in its keys. */
const AMOUNTS: Renaming = { amountMg: 'amount', shortMg: 'short', toleranceG: 'tolerance' };
const RECIPE_BODY: Renaming = { liquorRatioLeast: 'minLiquorRatio', leastMin: 'minMinutes', mostMin: 'maxMinutes' };
const LOT_PLAN: Renaming = { ...RECIPE_BODY, sentence: 'message', fill: 'fillLevel', run: 'fill' };

const upgradeBody = (version: Json): Json => ({ ...version, body: renameKeys(version['body'], RECIPE_BODY) });

function studioToVersion2({ lots, runEntries, ...rest }: Json): Json {
  return {
    ...rest,
    formatVersion: 2,
    lots: renameKeys(lots, AMOUNTS),
    runEntries: renameKeys(runEntries, AMOUNTS),
  };
}

/** Cautions were sentences, and that of a weak heat source still was when the others had facts. */
function codedCautions(plan: unknown): unknown {
  if (!isObject(plan)) return plan;
  const coded = (kept: unknown, read: (sentence: string) => object): unknown =>
    Array.isArray(kept) ? kept.map((c: unknown) => (typeof c === 'string' ? read(c) : readKeptHeat(c))) : kept;
  const step = (s: Json): Json =>
    s['cautions'] === undefined ? s : { ...s, cautions: coded(s['cautions'], readStepCaution) };
  return {
    ...plan,
    ...(plan['cautions'] === undefined ? {} : { cautions: coded(plan['cautions'], readPlanCaution) }),
    ...(plan['steps'] === undefined ? {} : { steps: eachOf(plan['steps'], step) }),
  };
}

function readKeptHeat(caution: unknown): unknown {
  const note = isObject(caution) && caution['code'] === 'bath' ? caution['note'] : undefined;
  const message = isObject(note) ? note['message'] : undefined;
  return typeof message === 'string' ? readPlanCaution(message) : caution;
}

function lotToVersion3({ written, asked, plan, checks, ...lot }: Json): Json {
  return {
    ...lot,
    quantityText: written,
    ...(asked === undefined ? {} : { extras: renameKeys(asked, { written: 'quantityText', runs: 'fills' }) }),
    plan: codedCautions(renameKeys(plan, LOT_PLAN)),
    ...(checks === undefined ? {} : { checks: renameKeys(checks, { sentence: 'message' }) }),
  };
}

/** Materials did not say which of the catalogue's they are. */
const withCatalogueKey = (material: Json): Json => ({
  ...material,
  facts: {
    catalogueKey: recogniseMaterial(String(material['name'])),
    ...(isObject(material['facts']) ? material['facts'] : {}),
  },
});

/** The third version calls things by their names in the glossary. */
function studioToVersion3({ promises, standings, ...rest }: Json): Json {
  return {
    ...rest,
    formatVersion: 3,
    ...(rest['materials'] === undefined ? {} : { materials: eachOf(rest['materials'], withCatalogueKey) }),
    vessels: eachOf(rest['vessels'], (vessel) => renameKeys(vessel, { mostC: 'maxC' }) as Json),
    recipeVersions: eachOf(rest['recipeVersions'], upgradeBody),
    recipeStatuses: eachOf(standings, (status) => renameKeys(status, { standing: 'status' }) as Json),
    ...(rest['stripTrials'] === undefined
      ? {}
      : { stripTrials: eachOf(rest['stripTrials'], (trial) => renameKeys(trial, { laid: 'layout' }) as Json) }),
    lots: eachOf(rest['lots'], lotToVersion3),
    reservations: promises,
    ...(rest['tags'] === undefined
      ? {}
      : {
          tags: eachOf(rest['tags'], ({ jarId, kind, ...tag }) => ({
            ...tag,
            kind: kind === 'jar' ? 'stockLot' : kind,
            stockLotId: jarId,
          })),
        }),
  };
}

/** A studio file of an earlier version, brought to this one; any other comes back to be refused or read. */
export function upgradeStudioFile(file: unknown): unknown {
  if (!isObject(file)) return file;
  if (file['formatVersion'] === 1) return upgradeStudioFile(studioToVersion3(studioToVersion2(file)));
  if (file['formatVersion'] === 2) return upgradeStudioFile(studioToVersion3(file));
  // Since the fourth, photographs and sheets may lie beside the document; one that holds them reads as before.
  if (file['formatVersion'] !== 3) return file;
  return {
    ...file,
    formatVersion: 4,
    lots: eachOf(file['lots'], (lot) => ({ ...lot, plan: codedCautions(lot['plan']) })),
  };
}

/** A recipe file of the first version, brought to this one; any other comes back as it is, to be refused or read. */
export function upgradeRecipeFile(file: unknown): unknown {
  if (!isObject(file) || file['formatVersion'] !== 1) return file;
  const { standing, ...rest } = file;
  return { ...upgradeBody(rest), formatVersion: 2, status: standing };
}
