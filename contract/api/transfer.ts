import { z } from 'zod';
import { lineOf } from '../common';
import { TRANSFER_KINDS, importJob } from '../transfer';
import type { Call } from './call';
import { TYPES_OF_TABLES, text } from './call';

export const transferCalls = {
  exportStores: {
    method: 'get',
    path: '/api/stores/export',
    summary: 'Materials, stock lots or movements as CSV, or all as JSON',
    query: z.object({ kind: z.enum(TRANSFER_KINDS), separator: z.enum([',', ';']).optional() }),
    download: 'text/csv',
    reply: text,
    role: 'dyer',
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
    query: z.object({ kind: z.enum(TRANSFER_KINDS), name: lineOf(() => 'The file’s name').default('') }),
    upload: TYPES_OF_TABLES,
    reply: importJob,
    role: 'dyer',
  },
  importJob: {
    method: 'get',
    path: '/api/stores/imports/{id}',
    summary: 'How far an import is',
    reply: importJob,
    role: 'dyer',
  },
  runImport: {
    method: 'post',
    path: '/api/stores/imports/{id}/run',
    summary: 'Write what was previewed, all or none',
    reply: importJob,
    role: 'dyer',
  },
  cancelImport: {
    method: 'delete',
    path: '/api/stores/imports/{id}',
    summary: 'Stop an import; nothing is kept',
    reply: importJob,
    role: 'dyer',
  },
} as const satisfies Record<string, Call>;
