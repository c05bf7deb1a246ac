import { z } from 'zod';
import { studioDocument } from '../document';
import { authState, openStudio, person, signIn } from '../auth';
import type { Call } from './call';
import { done } from './call';

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
    body: studioDocument,
    reply: done,
    open: true,
  },
  signIn: { method: 'post', path: '/api/auth/session', summary: 'Come in', body: signIn, reply: person, open: true },
  signOut: { method: 'delete', path: '/api/auth/session', summary: 'Leave', reply: done, open: true },
} as const satisfies Record<string, Call>;
