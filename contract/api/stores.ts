import { z } from 'zod';
import { id, isoDate } from '../common';
import {
  forecast,
  balanceAsk,
  balanceReading,
  lotCost,
  materialPage,
  newStocktake,
  shelfOn,
  valuation,
  stocktake,
  stocktakeBooking,
  stocktakeEntry,
} from '../forecast';
import { attachment, listedMaterial, materialEdit, newMaterial, spoonWeighing } from '../materials';
import { conversion, count, delivery, ledgerLine, reversal, shelfRow, stockLot, stockLotEdit, taking } from '../stores';
import { gatheredRow, newPicking } from '../gathering';
import { liquorEntry, liquorTakeBack, newLiquor } from '../liquor';
import type { Call } from './call';
import { TYPES_OF_ATTACHMENTS, text, created } from './call';

export const storesCalls = {
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
  addMaterial: { method: 'post', path: '/api/materials', summary: 'Add a material', body: newMaterial, reply: created },
  editMaterial: {
    method: 'put',
    path: '/api/materials/{id}',
    summary: 'Change what is known of a material',
    body: materialEdit,
    reply: created,
  },
  weighSpoon: {
    method: 'post',
    path: '/api/materials/{id}/spoons',
    summary: 'Teach a spoon: one weighing of a level spoonful',
    body: spoonWeighing,
    reply: created,
  },
  attachSheet: {
    method: 'post',
    path: '/api/materials/{id}/attachments',
    summary: 'Attach the supplier’s safety data sheet (PDF)',
    query: z.object({ id, name: z.string().max(200) }),
    upload: ['application/pdf'],
    reply: created,
  },
  attachPhoto: {
    method: 'post',
    path: '/api/stock-lots/{id}/attachments',
    summary: 'Attach a photograph of a stock lot',
    query: z.object({ id, name: z.string().max(200) }),
    upload: TYPES_OF_ATTACHMENTS,
    reply: created,
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
    reply: created,
  },
  editStockLot: {
    method: 'put',
    path: '/api/stock-lots/{id}',
    summary: 'Change what a jar’s label says',
    body: stockLotEdit,
    reply: created,
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
    reply: created,
  },
  reverseMovement: {
    method: 'post',
    path: '/api/movements/{id}/reversal',
    summary: 'Reverse a movement',
    body: reversal,
    reply: created,
  },
  convert: {
    method: 'post',
    path: '/api/conversions',
    summary: 'Dry, freeze, grind, dissolve, blend, open or compost stock',
    body: conversion,
    reply: created,
  },
  saveLiquor: {
    method: 'post',
    path: '/api/liquors',
    summary: 'Keep a liquor as stock',
    body: newLiquor,
    reply: created,
  },
  liquorEntry: {
    method: 'post',
    path: '/api/stock-lots/{id}/liquor',
    summary: 'Use, replenish, check or measure a kept liquor',
    body: liquorEntry,
    reply: created,
  },

  addPicking: {
    method: 'post',
    path: '/api/stock-lots/{id}/pickings',
    summary: 'One more picking into a jar of what is gathered',
    body: newPicking,
    reply: created,
  },
  gathered: {
    method: 'get',
    path: '/api/stores/gathered',
    summary: 'What was gathered: grams an hour, what an hour’s picking dyes, and the shades it gave',
    reply: z.array(gatheredRow),
  },
  takeBackLiquorEntry: {
    method: 'post',
    path: '/api/liquor-entries/{id}/take-back',
    summary: 'Take back what was written of a kept liquor, with what it moved',
    body: liquorTakeBack,
    reply: created,
  },

  forecast: {
    method: 'get',
    path: '/api/stores/ahead',
    summary: 'Use, run-out, reorder, seasons and what goes off',
    reply: forecast,
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
  lotCost: {
    method: 'get',
    path: '/api/lots/{id}/cost',
    summary: 'What a lot costs: materials, heat, hands',
    reply: lotCost,
  },

  stocktakes: {
    method: 'get',
    path: '/api/stocktakes',
    summary: 'Counts begun and not booked',
    reply: z.array(
      stocktake.pick({ id: true, place: true, blind: true, startedAt: true }).extend({ counted: z.int() }),
    ),
  },
  startStocktake: {
    method: 'post',
    path: '/api/stocktakes',
    summary: 'Begin counting a place',
    body: newStocktake,
    reply: created,
  },
  stocktake: {
    method: 'get',
    path: '/api/stocktakes/{id}',
    summary: 'One count: jars, figures, differences',
    reply: stocktake,
  },
  stocktakeEntry: {
    method: 'post',
    path: '/api/stocktakes/{id}/entries',
    summary: 'What one jar weighs',
    body: stocktakeEntry,
    reply: created,
  },
  bookStocktake: {
    method: 'post',
    path: '/api/stocktakes/{id}/booking',
    summary: 'Book every difference of a count, all or none',
    body: stocktakeBooking,
    reply: z.object({ booked: z.int() }),
  },
  readBalance: {
    method: 'post',
    path: '/api/balance/reading',
    summary: 'Read the balance (a simulated one ships)',
    body: balanceAsk,
    reply: balanceReading,
  },
} as const satisfies Record<string, Call>;
