import { schemas } from '../core/operations/schemas'
import { OPERATION_NAMES } from '../core/operations/dispatch'
import { COMMANDS } from '../server/commands/registry'

const PARTS = '#/components/schemas/'
const json = (schema: object) => ({ content: { 'application/json': { schema } } })
const answer = (description: string, schema: object = { type: 'object' }) => ({ description, ...json(schema) })
const part = (name: string) => ({ $ref: `${PARTS}${name}` })

/** A schema whose references to other schemas by name point into the document. */
const inDocument = (schema: object) =>
  JSON.parse(JSON.stringify(schema).replaceAll(/"\$ref":"(\w+)"/g, `"$ref":"${PARTS}$1"`)) as object

/**
 * The OpenAPI 3.1 document of what programs may call: every operation of the core and every command. Made from the
 * schemas that requests are checked against.
 */
export function openApiDocument(): object {
  const operations = OPERATION_NAMES.map((name) => [
    `/api/v1/${name}`,
    {
      post: {
        operationId: name,
        tags: ['operations'],
        summary: `Answers a request of \`${name}\`; nothing is written.`,
        requestBody: { required: true, ...json(part(name)) },
        responses: {
          200: answer('The answer.'),
          400: answer('The request is faulty; each fault with its place.', part('Faults')),
          401: answer('Nobody is signed in.'),
          503: answer('The server is busy.', part('Faults')),
        },
      },
    },
  ])
  const commands = Object.values(COMMANDS).map(({ name, permission, schema }) => [
    `/api/v1/commands/${name}`,
    {
      post: {
        operationId: name,
        tags: ['commands'],
        summary: `Needs the permission \`${permission}\`.`,
        requestBody: {
          required: true,
          ...json({
            type: 'object',
            required: ['id', 'input'],
            properties: { id: part('Id'), input: inDocument(schema) },
          }),
        },
        responses: {
          200: answer('Carried out, now or when it was first sent under this id.', part('CarriedOut')),
          401: answer('Nobody is signed in.'),
          403: answer('The role does not allow it, or the request comes from another site.', part('Refused')),
          413: answer('The request is too long.', part('Refused')),
          415: answer('The request is not JSON.', part('Refused')),
          422: answer('Refused; nothing was written.', part('Refused')),
        },
      },
    },
  ])
  return {
    openapi: '3.1.0',
    info: {
      title: 'Yielding Saddle',
      version: '1',
      description:
        'Requests carry a key, which a manager makes under Studio, People, or the session cookie of somebody who ' +
        'signed in; they come from this server’s own origin or none. ' +
        'Lengths are in millimetres, angles in degrees, times in milliseconds since 1970. A field with an empty ' +
        'schema is checked further by the command, which names the place of each issue.',
    },
    servers: [{ url: '/' }],
    security: [{ key: [] }, { session: [] }],
    paths: Object.fromEntries([...operations, ...commands]),
    components: {
      securitySchemes: {
        key: { type: 'http', scheme: 'bearer', description: 'A key of a program, with what it may do.' },
        session: { type: 'apiKey', in: 'cookie', name: 'better-auth.session_token' },
      },
      schemas: {
        ...Object.fromEntries(Object.entries(schemas).map(([name, schema]) => [name, inDocument(schema)])),
        Id: {
          type: 'string',
          pattern: '^[0-9a-z-]{1,36}$',
          description: 'Made by the client, for example a UUID; the same when it sends again.',
        },
        CarriedOut: { type: 'object', required: ['outcome'], properties: { outcome: { const: 'kept' } } },
        Refused: {
          type: 'object',
          required: ['outcome', 'code', 'say'],
          properties: {
            outcome: { const: 'refused' },
            code: { type: 'string' },
            say: { type: 'string', description: 'The reason in words.' },
            issues: { type: 'array', items: part('Issue') },
          },
        },
        Faults: {
          type: 'object',
          required: ['error'],
          properties: {
            error: {
              type: 'object',
              required: ['kind', 'faults'],
              properties: { kind: { type: 'string' }, faults: { type: 'array', items: part('Issue') } },
            },
          },
        },
        Issue: {
          type: 'object',
          required: ['pointer', 'reason'],
          properties: { pointer: { type: 'string' }, reason: { type: 'string' } },
        },
      },
    },
  }
}

/** The same as text. */
export const publishedOpenApi = (): string => `${JSON.stringify(openApiDocument(), null, 2)}\n`
