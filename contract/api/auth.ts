import { z } from 'zod';
import {
  changePassphrase,
  codeForPerson,
  authState,
  openStudio,
  openedDocument,
  openingDocument,
  person,
  setPassphrase,
  signIn,
} from '../auth';
import { copyOfStudio, copyToOpen } from '../copies';
import type { Call } from './call';
import { TYPES_OF_STUDIO_FILES, done } from './call';

export const authCalls = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server can serve',
    reply: z.object({ status: z.literal('ok') }),
    open: true,
  },
  authState: {
    method: 'get',
    path: '/api/auth',
    summary: 'What anyone may see before coming in',
    reply: authState,
    open: true,
  },
  openStudio: {
    method: 'post',
    path: '/api/auth/studio',
    summary: 'First run: make the studio and its first person',
    body: openStudio,
    reply: person,
    open: true,
  },
  openDocument: {
    method: 'post',
    path: '/api/auth/document',
    summary: 'First run: open a studio file',
    upload: TYPES_OF_STUDIO_FILES,
    reply: openedDocument,
    open: true,
  },
  openingDocument: {
    method: 'get',
    path: '/api/auth/document',
    summary: 'First run: how far a studio file is opened',
    reply: openingDocument,
    open: true,
  },
  stopOpening: {
    method: 'delete',
    path: '/api/auth/document',
    summary: 'First run: stop opening a studio file',
    reply: done,
    open: true,
  },
  copiesAtDoor: {
    method: 'get',
    path: '/api/auth/copies',
    summary: 'First run: copies of a studio that lie in the folder for them',
    reply: z.array(copyOfStudio),
    open: true,
  },
  openCopy: {
    method: 'post',
    path: '/api/auth/copies',
    summary: 'First run: open one of those copies',
    body: copyToOpen,
    reply: openedDocument,
    open: true,
  },
  setPassphrase: {
    method: 'post',
    path: '/api/auth/passphrase',
    summary: 'Choose a passphrase by a code that is good for once, and come in',
    body: setPassphrase,
    reply: person,
    open: true,
  },
  changePassphrase: {
    method: 'put',
    path: '/api/auth/passphrase',
    summary: 'Choose another passphrase; wherever else one came in by the old one, that ends',
    body: changePassphrase,
    reply: done,
  },
  giveCode: {
    method: 'post',
    path: '/api/people/{id}/code',
    summary: 'A code by which a colleague chooses a passphrase anew, once',
    reply: codeForPerson,
  },
  signIn: { method: 'post', path: '/api/auth/session', summary: 'Come in', body: signIn, reply: person, open: true },
  signOut: { method: 'delete', path: '/api/auth/session', summary: 'Leave', reply: done, open: true },
} as const satisfies Record<string, Call>;
