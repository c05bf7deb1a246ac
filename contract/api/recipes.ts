import { z } from 'zod';
import {
  newProof,
  newRecipe,
  newRecipeVersion,
  newRecipeStatus,
  recipeOutline,
  recipePrivacy,
  recipeSummary,
  recipeVersion,
} from '../recipes';
import { recipeFileIn, recipeFileCheck, recipeFileImport } from '../recipe-file';
import { newStripLook, newStripReading, newStripTrial, stripPromotion, stripTrial, stripTrialSummary } from '../strips';
import type { Call } from './call';
import { text, created } from './call';

export const recipesCalls = {
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
    reply: created,
  },
  addRecipeVersion: {
    method: 'post',
    path: '/api/recipes/{id}/versions',
    summary: 'Write the next version of a recipe',
    body: newRecipeVersion,
    reply: created,
  },
  setRecipeStatus: {
    method: 'post',
    path: '/api/recipe-versions/{id}/standings',
    summary: 'Say where a version stands',
    body: newRecipeStatus,
    reply: created,
  },

  keepRecipeTo: {
    method: 'put',
    path: '/api/recipes/{id}/kept-to',
    summary: 'Keep a recipe to some people, or show it to everybody again',
    body: recipePrivacy,
    reply: created,
  },
  keepVersionTo: {
    method: 'put',
    path: '/api/recipe-versions/{id}/kept-to',
    summary: 'Keep one version to some people, or show it to whom the recipe is shown',
    body: recipePrivacy,
    reply: created,
  },
  keepAmountsTo: {
    method: 'put',
    path: '/api/recipes/{id}/amounts-kept-to',
    summary: 'Keep how much goes in to some people, or show it to whom the recipe is shown',
    body: recipePrivacy,
    reply: created,
  },
  recipeOutline: {
    method: 'get',
    path: '/api/recipe-versions/{id}/outline',
    summary: 'What goes into a recipe version step by step, without the amounts',
    reply: recipeOutline,
  },
  recordProof: {
    method: 'post',
    path: '/api/recipe-versions/{id}/proofs',
    summary: 'Record a proof of a version',
    body: newProof,
    reply: created,
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
    body: recipeFileIn,
    reply: recipeFileCheck,
  },
  importRecipe: {
    method: 'post',
    path: '/api/recipe-files',
    summary: 'Take a recipe file in, as a trial',
    body: recipeFileImport,
    reply: created,
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
    reply: created,
  },
  recordStripReading: {
    method: 'post',
    path: '/api/strip-trials/{id}/readings',
    summary: 'Record the colour of a strip',
    body: newStripReading,
    reply: created,
  },
  recordStripLook: {
    method: 'post',
    path: '/api/strip-trials/{id}/looks',
    summary: 'Record how an eye ranks strips',
    body: newStripLook,
    reply: created,
  },
  promoteStrip: {
    method: 'post',
    path: '/api/strip-trials/{id}/promotions',
    summary: 'Make a recipe version of a strip',
    body: stripPromotion,
    reply: created,
  },
} as const satisfies Record<string, Call>;
