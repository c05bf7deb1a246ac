import type { Said } from '../common';
import { z } from 'zod';
import { id, numberIn } from '../common';
import {
  FASTNESS_SUBJECTS,
  dryForecast,
  fastnessOf,
  fastnessTest,
  jarGave,
  knownColour,
  ladderSheet,
  nearColour,
  newFastnessReading,
  newFastnessTest,
  newPatchCard,
  newSwatch,
  paletteSheet,
  patchCard,
  readPieces,
  reader,
  repeatability,
  setTags,
  swatch,
  swatchEdit,
} from '../swatches';
import type { Call } from './call';
import { created, text } from './call';

/** A number in an address; a blank is none. */
const written = (what: Said, min: number, max: number): z.ZodType<number, string> =>
  z
    .string()
    .transform((text) => (text.trim() === '' ? NaN : Number(text)))
    .pipe(numberIn(what, min, max));
const labInWords = {
  L: written(() => 'L*', 0, 100),
  a: written(() => 'a*', -128, 128),
  b: written(() => 'b*', -128, 128),
};

export const judgeCalls = {
  swatches: { method: 'get', path: '/api/swatches', summary: 'Every snippet in the book', reply: z.array(swatch) },
  addSwatch: {
    method: 'post',
    path: '/api/swatches',
    summary: 'Cut a snippet and fasten it in the book',
    body: newSwatch,
    reply: created.extend({ page: z.int(), slot: z.int() }),
  },
  editSwatch: {
    method: 'put',
    path: '/api/swatches/{id}',
    summary: 'Fasten a snippet elsewhere, or note on it',
    body: swatchEdit,
    reply: created,
  },
  takeOutSwatch: {
    method: 'post',
    path: '/api/swatches/{id}/taken-out',
    summary: 'Take a snippet out of the book',
    body: z.object({ id }),
    reply: created,
  },
  swatchFile: {
    method: 'get',
    path: '/api/swatches/{id}/file',
    summary: 'Everything about a snippet: what it was made with, its readings and spectra, what was tried on it',
    download: 'application/json',
    reply: text,
    role: 'dyer',
  },
  bookPage: {
    method: 'get',
    path: '/api/swatches/page.pdf',
    summary: 'A page of the book to print, with spaces to fasten snippets beside what is known of them',
    query: z.object({ page: z.coerce.number().int().min(1) }),
    download: 'application/pdf',
    reply: text,
  },
  colours: {
    method: 'get',
    path: '/api/colours',
    summary: 'Every colour the record knows, or those that a material, base, jar or recipe version gave',
    query: z.object({ materialId: id.optional(), stockLotId: id.optional(), recipeVersionId: id.optional() }),
    reply: z.array(knownColour),
  },
  jarsGave: {
    method: 'get',
    path: '/api/colours/jars',
    summary: 'What each jar of dyestuff gave last, newest lot first',
    reply: z.array(jarGave),
  },
  nearestColours: {
    method: 'get',
    path: '/api/colours/nearest',
    summary: 'The colours of the record nearest to one, by CIEDE2000',
    query: z.object({ ...labInWords, count: z.coerce.number().int().min(1).max(60).default(12) }),
    reply: z.array(nearColour),
  },
  colourFile: {
    method: 'get',
    path: '/api/colours/file',
    summary: 'Every reading that settled, as CGATS.17 text or a table',
    query: z.object({ format: z.enum(['cgats', 'csv']).default('cgats') }),
    download: 'text/plain',
    reply: text,
    role: 'dyer',
  },
  printPalette: {
    method: 'post',
    path: '/api/palette.pdf',
    summary: 'A palette as a sheet to print',
    body: paletteSheet,
    download: 'application/pdf',
    reply: text,
    role: 'guest',
  },
  printSetTags: {
    method: 'post',
    path: '/api/set-tags.pdf',
    summary: 'Tags for sets of pieces that match, with how they are cared for',
    body: setTags,
    download: 'application/pdf',
    reply: text,
    role: 'guest',
  },
  fastnessTests: {
    method: 'get',
    path: '/api/fastness',
    summary: 'Every fastness test, those that are due first',
    reply: z.array(fastnessTest),
  },
  addFastnessTest: {
    method: 'post',
    path: '/api/fastness',
    summary: 'Begin a wash test or hang a card into the light',
    body: newFastnessTest,
    reply: created,
  },
  readFastnessTest: {
    method: 'post',
    path: '/api/fastness/{id}/readings',
    summary: 'Read or grade what a test shows',
    body: newFastnessReading,
    reply: created,
  },
  fastnessOf: {
    method: 'get',
    path: '/api/fastness/of',
    summary:
      'How fast what a lot, a recipe version or kept pieces were dyed with is, and what is printed with the goods',
    query: z.object({ subject: z.enum(FASTNESS_SUBJECTS), id }),
    reply: fastnessOf,
  },
  readPieces: {
    method: 'get',
    path: '/api/colourways/{id}/pieces',
    summary: 'The pieces of a colourway’s lots that were read by themselves',
    reply: z.array(readPieces),
  },
  printLadder: {
    method: 'post',
    path: '/api/ladder.pdf',
    summary: 'A ladder about a colour, to hold a piece against',
    body: ladderSheet,
    download: 'application/pdf',
    reply: text,
    role: 'guest',
  },
  repeatability: {
    method: 'get',
    path: '/api/colourways/{id}/repeatability',
    summary: 'The lots of a colourway over time against its master',
    reply: repeatability,
  },
  readers: {
    method: 'get',
    path: '/api/readers',
    summary: 'The colour readers of the studio: how well each repeats, and how they differ',
    reply: z.array(reader),
  },
  patchCard: {
    method: 'get',
    path: '/api/patch-card',
    summary: 'The studio’s card of known patches, as it was measured last; null while it never was',
    reply: patchCard,
  },
  measurePatchCard: {
    method: 'post',
    path: '/api/patch-card',
    summary: 'Write down what a reader says of the card’s patches',
    body: newPatchCard,
    reply: created,
    role: 'dyer',
  },
  printPatchCard: {
    method: 'get',
    path: '/api/patch-card.pdf',
    summary: 'The card to print and lay beside pieces in a photograph',
    download: 'application/pdf',
    reply: text,
  },
  dryForecast: {
    method: 'get',
    path: '/api/dry-forecast',
    summary: 'What a wet reading will be dry, from pieces that were read both ways',
    query: z.object({ ...labInWords, fibre: z.string() }),
    reply: dryForecast,
  },
} as const satisfies Record<string, Call>;
