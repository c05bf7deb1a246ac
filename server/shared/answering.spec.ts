import { request } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setImmediate } from 'node:timers/promises';
import express from 'express';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { Answering } from './answering';

const LONGER_THAN_A_TEST_MS = 1_000_000;

let answering: Answering;
let server: Server;
let answer: () => void;
let arrived: Promise<void>;
let arrive: () => void;

beforeEach(async () => {
  answering = new Answering(LONGER_THAN_A_TEST_MS);
  const app = express();
  app.use(answering.count);
  arrived = new Promise((resolve) => (arrive = resolve));
  app.get('/slow', (_req, res) => {
    answer = () => res.json({ ok: true });
    arrive();
  });
  app.get('/stream', (_req, res) => {
    res.flushHeaders();
    arrive();
  });
  server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

const ask = (path: string): ReturnType<typeof request> => {
  const asked = request({ port: (server.address() as AddressInfo).port, path });
  asked.on('error', () => undefined);
  asked.end();
  return asked;
};

it('goes on at once while nobody asks', async () => {
  await answering.first();
});

it('lets whoever asks go first, and goes on when they are answered', async () => {
  ask('/slow');
  await arrived;
  let hasGone = false;
  const work = answering.first().then(() => (hasGone = true));
  for (let turn = 0; turn < 50; turn += 1) await setImmediate();
  expect(hasGone).toBe(false);
  answer();
  await work;
  await answering.first();
});

it('is not held up by an answer that has begun', async () => {
  ask('/stream');
  await arrived;
  await answering.first();
});

it('is not held up by somebody who went away', async () => {
  const asked = ask('/slow');
  await arrived;
  asked.destroy();
  await answering.first();
});

it('comes on even where somebody always asks', async () => {
  answering = new Answering(1);
  server.removeAllListeners('request');
  server.on('request', (req, res) =>
    answering.count(req as express.Request, res as unknown as express.Response, () => arrive()),
  );
  ask('/slow');
  await arrived;
  await answering.first();
  await answering.first();
});

it('waits for a lull until nobody asks any more, and is stopped where it stands', async () => {
  const over = new AbortController();
  ask('/slow');
  await arrived;
  const lull = answering.lull(over.signal);
  over.abort();
  await expect(lull).rejects.toThrow(/aborted/);
});
