import { z } from 'zod';
import {
  bench,
  cardAsk,
  containerMade,
  instrument,
  instrumentOrder,
  newContainer,
  newRehearsal,
  newTags,
  probeLog,
  probePoints,
  putAway,
  rehearsal,
  tag,
  tagAsk,
  touches,
  touchResults,
} from './bench';
import { colourway, colourwayDetail, colourwayEdit, newColourway } from './colourways';
import { id, isoDate } from './common';
import { studioDocument } from './document';
import { door, newPerson, openStudio, person, signIn } from './door';
import { agreement, lotDetail, lotSummary, newReading, newRunEntry, newVerdict, proposal, proposalAsk } from './lots';
import {
  newProof,
  newRecipe,
  newRecipeVersion,
  newStanding,
  recipeFile,
  recipeFileCheck,
  recipeFileImport,
  recipeSummary,
  recipeVersion,
} from './recipes';
import { newStripReading, newStripTrial, stripPromotion, stripTrial, stripTrialSummary } from './strips';
import {
  ahead,
  balanceAsk,
  balanceReading,
  lotCost,
  materialPage,
  newWalk,
  shelfOn,
  valuation,
  walk,
  walkBooking,
  walkEntry,
} from './ahead';
import { attachment, listedMaterial, materialEdit, newMaterial, spoonWeighing } from './materials';
import {
  conversion,
  count,
  delivery,
  ledgerLine,
  liquorEntry,
  newLiquor,
  reversal,
  shelfRow,
  stockLot,
  stockLotEdit,
  taking,
} from './stores';
import { TRANSFER_KINDS, importJob } from './transfer';
import {
  heatSourceEdit,
  newHeatSource,
  newVessel,
  newWater,
  settingsEdit,
  studio,
  vesselEdit,
  waterEdit,
} from './studio';
import { searchHit, today } from './today';

/** One call: what crosses the wire, both ways. `{id}` stands in paths. */
export interface Call {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly body?: z.ZodType;
  readonly query?: z.ZodObject;
  readonly reply: z.ZodType;
  /** Takes a file as the whole body, of one of these media types. */
  readonly upload?: readonly string[];
  /** Answers with a file of this media type instead of JSON. */
  readonly download?: string;
  /** May be called before coming in. */
  readonly open?: true;
}

const TYPES_OF_TABLES = ['text/csv', 'application/json', 'application/octet-stream'] as const;
const TYPES_OF_ATTACHMENTS = ['application/pdf', 'image/png', 'image/jpeg', 'image/webp'] as const;
const text = z.string();
const made = z.object({ id });
const done = z.object({ ok: z.literal(true) });

/** Every call of the server. The routes are registered from it and `/api/openapi.json` is made from it. */
export const api = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server can serve',
    reply: z.object({ status: z.literal('ok') }),
    open: true,
  },
  door: { method: 'get', path: '/api/door', summary: 'What anyone may see before coming in', reply: door, open: true },
  openStudio: {
    method: 'post',
    path: '/api/door/studio',
    summary: 'First run: make the studio and its first person',
    body: openStudio,
    reply: person,
    open: true,
  },
  openDocument: {
    method: 'post',
    path: '/api/door/document',
    summary: 'First run: open a studio file',
    body: studioDocument,
    reply: done,
    open: true,
  },
  signIn: { method: 'post', path: '/api/door/session', summary: 'Come in', body: signIn, reply: person, open: true },
  signOut: { method: 'delete', path: '/api/door/session', summary: 'Leave', reply: done, open: true },

  studio: { method: 'get', path: '/api/studio', summary: 'House practice, people, vessels and waters', reply: studio },
  editSettings: {
    method: 'put',
    path: '/api/studio',
    summary: 'Change the studio’s settings',
    body: settingsEdit,
    reply: studio,
  },
  addPerson: { method: 'post', path: '/api/people', summary: 'Add a person', body: newPerson, reply: made },
  addVessel: { method: 'post', path: '/api/vessels', summary: 'Add a vessel', body: newVessel, reply: made },
  editVessel: { method: 'put', path: '/api/vessels/{id}', summary: 'Change a vessel', body: vesselEdit, reply: made },
  removeVessel: {
    method: 'delete',
    path: '/api/vessels/{id}',
    summary: 'Take a vessel out of the studio',
    reply: done,
  },
  addHeatSource: {
    method: 'post',
    path: '/api/heat-sources',
    summary: 'Add a heat source',
    body: newHeatSource,
    reply: made,
  },
  editHeatSource: {
    method: 'put',
    path: '/api/heat-sources/{id}',
    summary: 'Change a heat source',
    body: heatSourceEdit,
    reply: made,
  },
  addWater: { method: 'post', path: '/api/waters', summary: 'Add a water source', body: newWater, reply: made },
  editWater: {
    method: 'put',
    path: '/api/waters/{id}',
    summary: 'Change a water source',
    body: waterEdit,
    reply: made,
  },
  exportDocument: {
    method: 'get',
    path: '/api/document',
    summary: 'The whole studio as one document',
    reply: studioDocument,
  },

  shelf: {
    method: 'get',
    path: '/api/stores',
    summary: 'Every jar with what is on hand, promised and free',
    reply: z.array(shelfRow),
  },
  shelfOn: {
    method: 'get',
    path: '/api/stores/on',
    summary: 'The shelf on another day, past or to come',
    query: z.object({ on: isoDate }),
    reply: shelfOn,
  },
  materials: { method: 'get', path: '/api/materials', summary: 'Every material', reply: z.array(listedMaterial) },
  material: {
    method: 'get',
    path: '/api/materials/{id}',
    summary: 'One material: jars, spoons, sheet, use, worth',
    reply: materialPage,
  },
  addMaterial: { method: 'post', path: '/api/materials', summary: 'Add a material', body: newMaterial, reply: made },
  editMaterial: {
    method: 'put',
    path: '/api/materials/{id}',
    summary: 'Change what is known of a material',
    body: materialEdit,
    reply: made,
  },
  weighSpoon: {
    method: 'post',
    path: '/api/materials/{id}/spoons',
    summary: 'Teach a spoon: one weighing of a level spoonful',
    body: spoonWeighing,
    reply: made,
  },
  attachSheet: {
    method: 'post',
    path: '/api/materials/{id}/attachments',
    summary: 'Attach the supplier’s safety data sheet (PDF)',
    query: z.object({ id, name: z.string().max(200) }),
    upload: ['application/pdf'],
    reply: made,
  },
  attachPhoto: {
    method: 'post',
    path: '/api/stock-lots/{id}/attachments',
    summary: 'Attach a photograph of a stock lot',
    query: z.object({ id, name: z.string().max(200) }),
    upload: TYPES_OF_ATTACHMENTS,
    reply: made,
  },
  attachment: {
    method: 'get',
    path: '/api/attachments/{id}',
    summary: 'An attached sheet or photograph',
    download: 'application/octet-stream',
    reply: attachment,
  },
  stockLot: {
    method: 'get',
    path: '/api/stock-lots/{id}',
    summary: 'One jar: movements, promises, where it came from and went',
    reply: stockLot,
  },
  ledger: {
    method: 'get',
    path: '/api/stock-lots/{id}/ledger',
    summary: 'Every line of one jar’s ledger, oldest first',
    reply: z.array(ledgerLine),
  },
  receive: {
    method: 'post',
    path: '/api/stock-lots',
    summary: 'Book in a receipt, harvest or gift as a new stock lot',
    body: delivery,
    reply: made,
  },
  editStockLot: {
    method: 'put',
    path: '/api/stock-lots/{id}',
    summary: 'Change what a jar’s label says',
    body: stockLotEdit,
    reply: made,
  },
  countStockLot: {
    method: 'post',
    path: '/api/stock-lots/{id}/counts',
    summary: 'Count a jar; the difference is booked',
    body: count,
    reply: z.object({ difference: z.int() }),
  },
  takeOut: {
    method: 'post',
    path: '/api/stock-lots/{id}/takings',
    summary: 'Use, spoil or give away without a lot',
    body: taking,
    reply: made,
  },
  reverseMovement: {
    method: 'post',
    path: '/api/movements/{id}/reversal',
    summary: 'Reverse a movement',
    body: reversal,
    reply: made,
  },
  convert: {
    method: 'post',
    path: '/api/conversions',
    summary: 'Dry, freeze, grind, dissolve, blend, open or compost stock',
    body: conversion,
    reply: made,
  },
  saveLiquor: { method: 'post', path: '/api/liquors', summary: 'Keep a liquor as stock', body: newLiquor, reply: made },
  liquorEntry: {
    method: 'post',
    path: '/api/stock-lots/{id}/liquor',
    summary: 'Use, replenish, check or measure a kept liquor',
    body: liquorEntry,
    reply: made,
  },

  ahead: {
    method: 'get',
    path: '/api/stores/ahead',
    summary: 'Use, run-out, reorder, seasons and what goes off',
    reply: ahead,
  },
  shoppingList: {
    method: 'get',
    path: '/api/stores/ahead.csv',
    summary: 'What to order and gather, as a table',
    download: 'text/csv',
    reply: text,
  },
  valuation: {
    method: 'get',
    path: '/api/stores/valuation',
    summary: 'Stock in money, first in first out and at average',
    query: z.object({ on: isoDate.optional() }),
    reply: valuation,
  },
  lotCost: { method: 'get', path: '/api/lots/{id}/cost', summary: 'What a lot’s materials cost', reply: lotCost },

  walks: {
    method: 'get',
    path: '/api/count-walks',
    summary: 'Counts begun and not booked',
    reply: z.array(walk.pick({ id: true, place: true, blind: true, startedAt: true }).extend({ counted: z.int() })),
  },
  startWalk: {
    method: 'post',
    path: '/api/count-walks',
    summary: 'Begin counting a place',
    body: newWalk,
    reply: made,
  },
  walk: { method: 'get', path: '/api/count-walks/{id}', summary: 'One count: jars, figures, differences', reply: walk },
  walkEntry: {
    method: 'post',
    path: '/api/count-walks/{id}/entries',
    summary: 'What one jar weighs',
    body: walkEntry,
    reply: made,
  },
  bookWalk: {
    method: 'post',
    path: '/api/count-walks/{id}/booking',
    summary: 'Book every difference of a count, all or none',
    body: walkBooking,
    reply: z.object({ booked: z.int() }),
  },
  readBalance: {
    method: 'post',
    path: '/api/balance/reading',
    summary: 'Read the balance (a simulated one ships)',
    body: balanceAsk,
    reply: balanceReading,
  },

  exportStores: {
    method: 'get',
    path: '/api/stores/export',
    summary: 'Materials, stock lots or movements as CSV, or all as JSON',
    query: z.object({ kind: z.enum(TRANSFER_KINDS), separator: z.enum([',', ';']).optional() }),
    download: 'text/csv',
    reply: text,
  },
  storesSchema: {
    method: 'get',
    path: '/api/stores/schema.json',
    summary: 'The JSON Schema of the stores file',
    reply: z.record(z.string(), z.unknown()),
  },
  beginImport: {
    method: 'post',
    path: '/api/stores/imports',
    summary: 'Read a file and say what would become of each row; changes nothing',
    query: z.object({ kind: z.enum(TRANSFER_KINDS) }),
    upload: TYPES_OF_TABLES,
    reply: importJob,
  },
  importJob: { method: 'get', path: '/api/stores/imports/{id}', summary: 'How far an import is', reply: importJob },
  runImport: {
    method: 'post',
    path: '/api/stores/imports/{id}/run',
    summary: 'Write what was previewed, all or none',
    reply: importJob,
  },
  cancelImport: {
    method: 'delete',
    path: '/api/stores/imports/{id}',
    summary: 'Stop an import; nothing is kept',
    reply: importJob,
  },

  recipes: {
    method: 'get',
    path: '/api/recipes',
    summary: 'Every recipe with its versions',
    reply: z.array(recipeSummary),
  },
  recipeVersion: {
    method: 'get',
    path: '/api/recipe-versions/{id}',
    summary: 'One recipe version',
    reply: recipeVersion,
  },
  addRecipe: {
    method: 'post',
    path: '/api/recipes',
    summary: 'Write a recipe; it begins as a trial',
    body: newRecipe,
    reply: made,
  },
  addRecipeVersion: {
    method: 'post',
    path: '/api/recipes/{id}/versions',
    summary: 'Write the next version of a recipe',
    body: newRecipeVersion,
    reply: made,
  },
  setStanding: {
    method: 'post',
    path: '/api/recipe-versions/{id}/standings',
    summary: 'Say where a version stands',
    body: newStanding,
    reply: made,
  },

  recordProof: {
    method: 'post',
    path: '/api/recipe-versions/{id}/proofs',
    summary: 'Record a proof of a version',
    body: newProof,
    reply: made,
  },
  exportRecipe: {
    method: 'get',
    path: '/api/recipe-versions/{id}/file',
    summary: 'One recipe version as a file',
    download: 'application/json',
    reply: text,
  },
  recipeSchema: {
    method: 'get',
    path: '/api/recipes/schema.json',
    summary: 'The JSON Schema of the recipe file',
    reply: z.record(z.string(), z.unknown()),
  },
  checkRecipeFile: {
    method: 'post',
    path: '/api/recipe-files/check',
    summary: 'What a recipe file would bring; changes nothing',
    body: recipeFile,
    reply: recipeFileCheck,
  },
  importRecipe: {
    method: 'post',
    path: '/api/recipe-files',
    summary: 'Take a recipe file in, as a trial',
    body: recipeFileImport,
    reply: made,
  },
  stripTrials: {
    method: 'get',
    path: '/api/strip-trials',
    summary: 'Every strip trial',
    reply: z.array(stripTrialSummary),
  },
  stripTrial: {
    method: 'get',
    path: '/api/strip-trials/{id}',
    summary: 'One strip trial: strips, readings, ranking',
    reply: stripTrial,
  },
  addStripTrial: {
    method: 'post',
    path: '/api/strip-trials',
    summary: 'Lay out a strip trial',
    body: newStripTrial,
    reply: made,
  },
  recordStripReading: {
    method: 'post',
    path: '/api/strip-trials/{id}/readings',
    summary: 'Record the colour of a strip',
    body: newStripReading,
    reply: made,
  },
  promoteStrip: {
    method: 'post',
    path: '/api/strip-trials/{id}/promotions',
    summary: 'Make a recipe version of a strip',
    body: stripPromotion,
    reply: made,
  },

  colourways: { method: 'get', path: '/api/colourways', summary: 'Every colourway', reply: z.array(colourway) },
  colourway: {
    method: 'get',
    path: '/api/colourways/{id}',
    summary: 'One colourway and its lots',
    reply: colourwayDetail,
  },
  addColourway: {
    method: 'post',
    path: '/api/colourways',
    summary: 'Name a colourway',
    body: newColourway,
    reply: made,
  },
  editColourway: {
    method: 'put',
    path: '/api/colourways/{id}',
    summary: 'Change a colourway’s recipe version, tolerance or note',
    body: colourwayEdit,
    reply: made,
  },

  lots: { method: 'get', path: '/api/lots', summary: 'Every lot, newest first', reply: z.array(lotSummary) },
  lot: { method: 'get', path: '/api/lots/{id}', summary: 'One lot, whole', reply: lotDetail },
  propose: {
    method: 'post',
    path: '/api/lots/proposal',
    summary: 'Scale a colourway to a lot; changes nothing',
    body: proposalAsk,
    reply: proposal,
  },
  agree: {
    method: 'post',
    path: '/api/lots',
    summary: 'Agree to a proposal: the lot is made and stock promised',
    body: agreement,
    reply: made,
  },
  recordEntry: {
    method: 'post',
    path: '/api/lots/{id}/entries',
    summary: 'Record what was done at the bench',
    body: newRunEntry,
    reply: made,
  },
  bench: {
    method: 'get',
    path: '/api/bench',
    summary: 'Lots in work, with all the bench needs',
    query: z.object({ lot: id.optional() }),
    reply: bench,
  },
  touches: {
    method: 'post',
    path: '/api/bench/touches',
    summary: 'Touches of the bench in the order they were made; each is taken once, or answered with a sentence',
    body: touches,
    reply: touchResults,
  },
  putAwayCaution: {
    method: 'post',
    path: '/api/bench/cautions',
    summary: 'Put a caution away for the day',
    body: putAway,
    reply: made,
  },
  addContainer: {
    method: 'post',
    path: '/api/containers',
    summary: 'Remember what a container weighs',
    body: newContainer,
    reply: containerMade,
  },
  probeLog: {
    method: 'get',
    path: '/api/lots/{id}/probe',
    summary: 'What the bath probe read, thinned without losing peaks',
    query: z.object({
      step: z.coerce.number().int().min(0).optional(),
      most: z.coerce.number().int().min(100).max(400_000).optional(),
    }),
    reply: probeLog,
  },
  recordProbe: {
    method: 'post',
    path: '/api/lots/{id}/probe',
    summary: 'Readings of a probe on a tablet’s own port',
    body: probePoints,
    reply: made,
  },
  attachRunPhoto: {
    method: 'post',
    path: '/api/lots/{id}/photos',
    summary: 'Attach a photograph to a bench entry',
    query: z.object({ id, entry: id, name: z.string().max(200) }),
    upload: TYPES_OF_ATTACHMENTS,
    reply: made,
  },
  instruments: {
    method: 'get',
    path: '/api/instruments',
    summary: 'The instruments that are there',
    reply: z.array(instrument),
  },
  instrumentOrder: {
    method: 'post',
    path: '/api/instruments',
    summary: 'Say something to an instrument, or put hands on a simulated one',
    body: instrumentOrder,
    reply: done,
  },
  startRehearsal: {
    method: 'post',
    path: '/api/rehearsals',
    summary: 'Run a lot against simulated pots; touches neither stock nor records',
    body: newRehearsal,
    reply: rehearsal,
  },
  rehearsal: { method: 'get', path: '/api/rehearsals/{id}', summary: 'A rehearsal as it stands', reply: rehearsal },
  rehearse: {
    method: 'post',
    path: '/api/rehearsals/{id}/touches',
    summary: 'Touches of a rehearsal',
    body: touches,
    reply: touchResults,
  },
  endRehearsal: {
    method: 'delete',
    path: '/api/rehearsals/{id}',
    summary: 'End a rehearsal; nothing is kept',
    reply: done,
  },
  giveTags: {
    method: 'post',
    path: '/api/tags',
    summary: 'Give jars, pots, lots, pieces and baths their codes',
    body: newTags,
    reply: z.array(tag),
  },
  readTag: {
    method: 'get',
    path: '/api/tags',
    summary: 'What a typed or scanned code stands for',
    query: tagAsk,
    reply: tag,
  },
  tagSheet: {
    method: 'get',
    path: '/api/tags.pdf',
    summary: 'Tags to print, one to a label',
    query: z.object({ codes: z.string().max(4000), size: z.enum(['label', 'sheet']).default('label') }),
    download: 'application/pdf',
    reply: text,
  },
  benchCard: {
    method: 'get',
    path: '/api/lots/{id}/card.pdf',
    summary: 'The bench card of a lot, to write on by hand',
    query: cardAsk,
    download: 'application/pdf',
    reply: text,
  },
  recordReading: {
    method: 'post',
    path: '/api/lots/{id}/readings',
    summary: 'Record a colour reading',
    body: newReading,
    reply: made,
  },
  giveVerdict: {
    method: 'post',
    path: '/api/lots/{id}/verdicts',
    summary: 'Pass, hold or refuse a lot',
    body: newVerdict,
    reply: made,
  },

  today: { method: 'get', path: '/api/today', summary: 'What is in work, what is due, what is short', reply: today },
  search: {
    method: 'get',
    path: '/api/search',
    summary: 'Find lots, jars, recipes and colourways',
    query: z.object({ q: z.string().max(200) }),
    reply: z.array(searchHit),
  },
} as const satisfies Record<string, Call>;
export type Api = typeof api;
