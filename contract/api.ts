import { z } from 'zod';
import { colourway, colourwayDetail, colourwayEdit, newColourway } from './colourways';
import { id } from './common';
import { studioDocument } from './document';
import { door, newPerson, openStudio, person, signIn } from './door';
import { agreement, lotDetail, lotSummary, newReading, newRunEntry, newVerdict, proposal, proposalAsk } from './lots';
import { newRecipe, newRecipeVersion, newStanding, recipeSummary, recipeVersion } from './recipes';
import { count, delivery, material, newMaterial, reversal, shelfRow, stockLot, stockLotEdit } from './stores';
import { newVessel, newWater, settingsEdit, studio, vesselEdit, waterEdit } from './studio';
import { searchHit, today } from './today';

/** One call: what crosses the wire, both ways. `{id}` stands in paths. */
export interface Call {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly body?: z.ZodType;
  readonly query?: z.ZodObject;
  readonly reply: z.ZodType;
  /** May be called before coming in. */
  readonly open?: true;
}

const made = z.object({ id });
const done = z.object({ ok: z.literal(true) });

/** Every call of the server. The routes are registered from it and `/api/openapi.json` is made from it. */
export const api = {
  health: { method: 'get', path: '/api/health', summary: 'Whether the server can serve', reply: z.object({ status: z.literal('ok') }), open: true },
  door: { method: 'get', path: '/api/door', summary: 'What anyone may see before coming in', reply: door, open: true },
  openStudio: { method: 'post', path: '/api/door/studio', summary: 'First run: make the studio and its first person', body: openStudio, reply: person, open: true },
  openDocument: { method: 'post', path: '/api/door/document', summary: 'First run: open a studio file', body: studioDocument, reply: done, open: true },
  signIn: { method: 'post', path: '/api/door/session', summary: 'Come in', body: signIn, reply: person, open: true },
  signOut: { method: 'delete', path: '/api/door/session', summary: 'Leave', reply: done, open: true },

  studio: { method: 'get', path: '/api/studio', summary: 'House practice, people, vessels and waters', reply: studio },
  editSettings: { method: 'put', path: '/api/studio', summary: 'Change the studio’s settings', body: settingsEdit, reply: studio },
  addPerson: { method: 'post', path: '/api/people', summary: 'Add a person', body: newPerson, reply: made },
  addVessel: { method: 'post', path: '/api/vessels', summary: 'Add a vessel', body: newVessel, reply: made },
  editVessel: { method: 'put', path: '/api/vessels/{id}', summary: 'Change a vessel', body: vesselEdit, reply: made },
  addWater: { method: 'post', path: '/api/waters', summary: 'Add a water source', body: newWater, reply: made },
  editWater: { method: 'put', path: '/api/waters/{id}', summary: 'Change a water source', body: waterEdit, reply: made },
  exportDocument: { method: 'get', path: '/api/document', summary: 'The whole studio as one document', reply: studioDocument },

  shelf: { method: 'get', path: '/api/stores', summary: 'Every jar with what is on hand, promised and free', reply: z.array(shelfRow) },
  materials: { method: 'get', path: '/api/materials', summary: 'Every material', reply: z.array(material) },
  addMaterial: { method: 'post', path: '/api/materials', summary: 'Add a material', body: newMaterial, reply: made },
  stockLot: { method: 'get', path: '/api/stock-lots/{id}', summary: 'One jar: movements, promises, where it went', reply: stockLot },
  receive: { method: 'post', path: '/api/stock-lots', summary: 'Book in a delivery as a new stock lot', body: delivery, reply: made },
  editStockLot: { method: 'put', path: '/api/stock-lots/{id}', summary: 'Change a jar’s place, note or best before', body: stockLotEdit, reply: made },
  countStockLot: { method: 'post', path: '/api/stock-lots/{id}/counts', summary: 'Count a jar; the difference is booked', body: count, reply: z.object({ difference: z.int() }) },
  reverseMovement: { method: 'post', path: '/api/movements/{id}/reversal', summary: 'Reverse a delivery or a count', body: reversal, reply: made },

  recipes: { method: 'get', path: '/api/recipes', summary: 'Every recipe with its versions', reply: z.array(recipeSummary) },
  recipeVersion: { method: 'get', path: '/api/recipe-versions/{id}', summary: 'One recipe version', reply: recipeVersion },
  addRecipe: { method: 'post', path: '/api/recipes', summary: 'Write a recipe; it begins as a trial', body: newRecipe, reply: made },
  addRecipeVersion: { method: 'post', path: '/api/recipes/{id}/versions', summary: 'Write the next version of a recipe', body: newRecipeVersion, reply: made },
  setStanding: { method: 'post', path: '/api/recipe-versions/{id}/standings', summary: 'Say where a version stands', body: newStanding, reply: made },

  colourways: { method: 'get', path: '/api/colourways', summary: 'Every colourway', reply: z.array(colourway) },
  colourway: { method: 'get', path: '/api/colourways/{id}', summary: 'One colourway and its lots', reply: colourwayDetail },
  addColourway: { method: 'post', path: '/api/colourways', summary: 'Name a colourway', body: newColourway, reply: made },
  editColourway: { method: 'put', path: '/api/colourways/{id}', summary: 'Change a colourway’s recipe version, tolerance or note', body: colourwayEdit, reply: made },

  lots: { method: 'get', path: '/api/lots', summary: 'Every lot, newest first', reply: z.array(lotSummary) },
  lot: { method: 'get', path: '/api/lots/{id}', summary: 'One lot, whole', reply: lotDetail },
  propose: { method: 'post', path: '/api/lots/proposal', summary: 'Scale a colourway to a lot; changes nothing', body: proposalAsk, reply: proposal },
  agree: { method: 'post', path: '/api/lots', summary: 'Agree to a proposal: the lot is made and stock promised', body: agreement, reply: made },
  recordEntry: { method: 'post', path: '/api/lots/{id}/entries', summary: 'Record what was done at the bench', body: newRunEntry, reply: made },
  recordReading: { method: 'post', path: '/api/lots/{id}/readings', summary: 'Record a colour reading', body: newReading, reply: made },
  giveVerdict: { method: 'post', path: '/api/lots/{id}/verdicts', summary: 'Pass, hold or refuse a lot', body: newVerdict, reply: made },

  today: { method: 'get', path: '/api/today', summary: 'What is in work, what is due, what is short', reply: today },
  search: { method: 'get', path: '/api/search', summary: 'Find lots, jars, recipes and colourways', query: z.object({ q: z.string().max(200) }), reply: z.array(searchHit) },
} as const satisfies Record<string, Call>;
export type Api = typeof api;
