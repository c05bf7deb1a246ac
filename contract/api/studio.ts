import { newPerson } from '../auth';
import { copyOfStudio, studioCopies } from '../copies';
import {
  heatSourceEdit,
  newHeatSource,
  newVessel,
  newWater,
  settingsEdit,
  studio,
  vesselEdit,
  waterEdit,
} from '../studio';
import type { Call } from './call';
import { created, done, text } from './call';

export const studioCalls = {
  studio: { method: 'get', path: '/api/studio', summary: 'House practice, people, vessels and waters', reply: studio },
  editSettings: {
    method: 'put',
    path: '/api/studio',
    summary: 'Change the studio’s settings',
    body: settingsEdit,
    reply: studio,
  },
  addPerson: { method: 'post', path: '/api/people', summary: 'Add a person', body: newPerson, reply: created },
  addVessel: { method: 'post', path: '/api/vessels', summary: 'Add a vessel', body: newVessel, reply: created },
  editVessel: {
    method: 'put',
    path: '/api/vessels/{id}',
    summary: 'Change a vessel',
    body: vesselEdit,
    reply: created,
  },
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
    reply: created,
  },
  editHeatSource: {
    method: 'put',
    path: '/api/heat-sources/{id}',
    summary: 'Change a heat source',
    body: heatSourceEdit,
    reply: created,
  },
  addWater: { method: 'post', path: '/api/waters', summary: 'Add a water source', body: newWater, reply: created },
  editWater: {
    method: 'put',
    path: '/api/waters/{id}',
    summary: 'Change a water source',
    body: waterEdit,
    reply: created,
  },
  copies: {
    method: 'get',
    path: '/api/copies',
    summary: 'Copies of the whole studio, and whether all is well with them',
    reply: studioCopies,
  },
  makeCopy: {
    method: 'post',
    path: '/api/copies',
    summary: 'Make a copy of the whole studio now, and look it over',
    reply: copyOfStudio,
  },
  studioFile: {
    method: 'get',
    path: '/api/studio-file',
    summary: 'The whole studio as one file, photographs and sheets with it',
    download: 'application/zip',
    reply: text,
  },
} as const satisfies Record<string, Call>;
