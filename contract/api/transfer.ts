import { z } from 'zod';
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
} as const satisfies Record<string, Call>;
