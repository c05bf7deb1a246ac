import { z } from 'zod';
import { firstLot } from '../first-lot';
import { colourway, colourwayDetail, colourwayEdit, dyeInLiquor, namedColourway, newMaster } from '../colourways';
import { recipePrivacy } from '../recipes';
import { putAway } from '../common';
import type { Call } from './call';
import { created } from './call';

export const colourwaysCalls = {
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
    body: namedColourway,
    reply: created,
    role: 'dyer',
  },
  editColourway: {
    method: 'put',
    path: '/api/colourways/{id}',
    summary: 'Change a colourway’s recipe version, tolerance or note',
    body: colourwayEdit,
    reply: created,
    role: 'dyer',
  },
  putColourwayAway: {
    method: 'put',
    path: '/api/colourways/{id}/put-away',
    summary: 'Put a colourway away, or bring it back',
    body: putAway,
    reply: created,
    role: 'dyer',
  },
  keepColourwayTo: {
    method: 'put',
    path: '/api/colourways/{id}/kept-to',
    summary: 'Keep what makes a colourway to some people, or show it to whom its recipe is shown',
    body: recipePrivacy,
    reply: created,
    role: 'dyer',
  },
  setMaster: {
    method: 'post',
    path: '/api/colourways/{id}/masters',
    summary: 'This is it: a swatch or a lot’s colour becomes the master',
    body: newMaster,
    reply: created,
    role: 'dyer',
  },
  firstLot: {
    method: 'post',
    path: '/api/first-lot',
    summary: 'Set up what a first lot needs: pot, cloth, materials, a starter recipe and a colourway that waits',
    body: firstLot,
    reply: created,
  },
  dyeInLiquor: {
    method: 'post',
    path: '/api/stock-lots/{id}/dye-in',
    summary: 'Dye other pieces in a liquor that stands: a recipe around it and a colourway that waits',
    body: dyeInLiquor,
    reply: created,
  },
} as const satisfies Record<string, Call>;
