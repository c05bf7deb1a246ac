import { OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi';
import type { Call } from '@vestigia/contract';
import { api, problem } from '@vestigia/contract';
import { z } from 'zod';

/** The OpenAPI 3.1 document, made from the contract's own table of calls. */
export function openApiDocument(version: string): object {
  const registry = new OpenAPIRegistry();
  const json = (schema: z.ZodType) => ({ 'application/json': { schema } });
  for (const [operationId, call] of Object.entries(api) as [string, Call][]) {
    registry.registerPath({
      operationId,
      method: call.method,
      path: call.path,
      summary: call.summary,
      security: call.open ? [] : [{ session: [] }],
      request: {
        ...(call.path.includes('{id}') ? { params: z.object({ id: z.uuid() }) } : {}),
        ...(call.query ? { query: call.query } : {}),
        ...(call.body ? { body: { required: true, content: json(call.body) } } : {}),
        ...(call.upload
          ? {
              body: {
                required: true,
                content: Object.fromEntries(
                  call.upload.map((type) => [type, { schema: { type: 'string' as const, format: 'binary' } }]),
                ),
              },
            }
          : {}),
      },
      responses: {
        200: {
          description: call.summary,
          content: call.download ? { [call.download]: { schema: { type: 'string' as const } } } : json(call.reply),
        },
        default: {
          description: 'Refused, with a plain sentence',
          content: { 'application/problem+json': { schema: problem } },
        },
      },
    });
  }
  registry.registerComponent('securitySchemes', 'session', { type: 'apiKey', in: 'cookie', name: 'vestigia' });
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Vestigia',
      version,
      description:
        'Scales proven dye recipes into repeatable lots, keeps the shelf true and records each batch. Ids are made by the caller (UUIDv7): the same write sent twice is done once. Changes are told at /api/events (server-sent events).',
    },
  });
}
