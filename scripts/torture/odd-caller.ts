// Requests made of the server's own OpenAPI document, seeded, so that one that breaks can be asked again by its number.
import { gzipSync } from 'node:zlib';
import { seeded } from '../../core/photo/seeded';
import type { Random } from './odd-values';
import { oddValue, pick, valueOf } from './odd-values';

interface Operation {
  readonly method: string;
  readonly path: string;
  readonly parameters: readonly { readonly name: string; readonly in: string; readonly schema: object }[];
  readonly content: Readonly<Record<string, { readonly schema: object }>>;
}
/** Asked, these end what is measured: they sign out, or open and stop studio files. */
const LEFT_OUT = ['signOut', 'openDocument', 'openCopy', 'makeCopy', 'setRole', 'endSession'];
const PERSON = { name: 'Isaby Fennimore', passphrase: 'heron at low tide' };

/** Every id that lists tell. */
async function idsOf(get: (path: string) => Promise<unknown>): Promise<string[]> {
  const ids = new Set<string>();
  for (const path of [
    '/api/lots',
    '/api/recipes',
    '/api/colourways',
    '/api/materials',
    '/api/stores',
    '/api/studio',
    '/api/strip-trials',
  ]) {
    for (const [id] of JSON.stringify(await get(path)).matchAll(
      /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g,
    ))
      ids.add(id);
  }
  return [...ids].slice(0, 400);
}

/** What is sent of a body: as JSON mostly, else broken in one of the ways bodies break. */
function packed(body: unknown, random: Random): { readonly headers: Record<string, string>; readonly body: BodyInit } {
  const json = JSON.stringify(body) ?? 'null';
  const type = { 'content-type': 'application/json' };
  const way = random.uniform();
  if (way > 0.12) return { headers: type, body: json };
  const zipped = gzipSync(json);
  if (way > 0.1)
    return { headers: { ...type, 'content-encoding': 'gzip' }, body: zipped.subarray(0, zipped.length - 6) };
  if (way > 0.08) return { headers: { ...type, 'content-encoding': 'gzip' }, body: json };
  if (way > 0.06)
    return { headers: { ...type, 'content-encoding': 'br' }, body: Buffer.from([0x0b, 0xff, 0xff, 1, 2]) };
  if (way > 0.05) return { headers: { ...type, 'content-encoding': 'deflate' }, body: zipped };
  if (way > 0.04) return { headers: { ...type, 'content-encoding': 'nothing-known' }, body: json };
  if (way > 0.03) return { headers: { 'content-type': 'application/json; charset=utf-7' }, body: json };
  if (way > 0.02) return { headers: type, body: json.slice(0, -1) };
  if (way > 0.01)
    return {
      headers: { 'content-type': pick(random, ['text/plain', 'image/png', 'application/pdf', '']) },
      body: json,
    };
  return { headers: type, body: '['.repeat(5000) };
}

/** What became of one request. */
export interface Answered {
  /** Which it was, by its number. */
  readonly said: string;
  readonly path: string;
  readonly isReading: boolean;
  readonly status: number | undefined;
  readonly cutOff: string | undefined;
  readonly tookMs: number;
}

/** Somebody who comes in as the demo's owner and asks for odd things. */
export async function oddCaller(base: string, seed: number): Promise<(n: number) => Promise<Answered>> {
  const description = (await (await fetch(`${base}/api/openapi.json`)).json()) as {
    readonly paths: Record<string, Record<string, Record<string, unknown>>>;
    readonly components: { readonly schemas: Record<string, never> };
  };
  const schemas = description.components.schemas;
  const operations = Object.entries(description.paths).flatMap(([path, own]) =>
    Object.entries(own).flatMap(([method, o]): Operation[] =>
      LEFT_OUT.includes(String(o['operationId']))
        ? []
        : [
            {
              method: method.toUpperCase(),
              path,
              parameters: (o['parameters'] as Operation['parameters'] | undefined) ?? [],
              content: ((o['requestBody'] as { content?: Operation['content'] } | undefined)?.content ??
                {}) as Operation['content'],
            },
          ],
    ),
  );
  const { people } = (await (await fetch(`${base}/api/auth`)).json()) as { people: { id: string; name: string }[] };
  const comeIn = async (): Promise<string> => {
    const entered = await fetch(`${base}/api/auth/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        personId: people.find((p) => p.name === PERSON.name)?.id,
        passphrase: PERSON.passphrase,
      }),
    });
    return entered.headers.get('set-cookie')?.split(';')[0] ?? '';
  };
  let cookie = await comeIn();
  const ids = await idsOf(async (path) => (await fetch(base + path, { headers: { cookie } })).json());

  return async (n) => {
    const random = seeded(seed * 1_000_003 + n);
    const operation = pick(random, operations);
    const about = { ids, odd: pick(random, [0, 0.02, 0.1, 0.3]) };
    const query = new URLSearchParams();
    let { path } = operation;
    for (const { name, in: where, schema } of operation.parameters) {
      const value = String(valueOf(schema as never, schemas, random, about) ?? '');
      if (where === 'path') path = path.replace(`{${name}}`, encodeURIComponent(Buffer.from(value).toString()) || 'x');
      else if (random.uniform() < 0.8) query.set(name, value);
    }
    const [type, content] = Object.entries(operation.content)[0] ?? [];
    const sent =
      type === undefined
        ? { headers: {}, body: null }
        : type === 'application/json' && content
          ? packed(valueOf(content.schema as never, schemas, random, about), random)
          : { headers: { 'content-type': type }, body: Buffer.from(JSON.stringify(oddValue(random)) ?? '') };
    const url = `${base}${path}${query.size > 0 ? `?${query.toString()}` : ''}`;
    const from = performance.now();
    let [status, cutOff]: [number | undefined, string | undefined] = [undefined, undefined];
    try {
      const stream = new AbortController();
      const reply = await fetch(url, {
        method: operation.method,
        headers: { cookie, ...sent.headers },
        body: operation.method === 'GET' ? null : sent.body,
        signal: stream.signal,
      });
      ({ status } = reply);
      if (status === 401 && !operation.path.startsWith('/api/auth')) cookie = await comeIn();
      // A line that stays open is let go of.
      if (reply.headers.get('content-type')?.startsWith('text/event-stream')) stream.abort();
      else await reply.arrayBuffer();
    } catch (error) {
      cutOff = String((error as Error).cause ?? error);
    }
    return {
      said: `${n}: ${operation.method} ${operation.path}`,
      path: operation.path,
      isReading: operation.method === 'GET',
      status,
      cutOff,
      tookMs: performance.now() - from,
    };
  };
}
