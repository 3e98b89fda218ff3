import { z } from 'zod'
import type { Endpoint } from './endpoint.ts'
import { problem } from './problem.ts'

type Json = Record<string, unknown>

/** A schema as JSON Schema 2020-12, the dialect of OpenAPI 3.1. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' })
  return rest
}

function parameters(schema: z.ZodType | undefined, where: 'path' | 'query'): Json[] {
  if (!schema) return []
  const { properties = {}, required = [] } = schemaOf(schema, 'input') as {
    properties?: Record<string, Json>
    required?: string[]
  }
  return Object.entries(properties).map(([name, value]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema: value,
  }))
}

function answers(e: Endpoint): Json {
  const status = String(e.status ?? (e.answer || e.answers ? 200 : 204))
  const content = e.answers
    ? { [e.answers]: { schema: { type: 'string' } } }
    : e.answer && { 'application/json': { schema: schemaOf(e.answer, 'output') } }
  return {
    [status]: { description: e.summary, ...(content ? { content } : {}) },
    default: {
      description: 'A problem, as RFC 9457 describes it',
      content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
    },
  }
}

function operation(e: Endpoint): Json {
  return {
    tags: [e.room],
    summary: e.summary,
    ...(e.access === 'anybody' ? { security: [] } : { 'x-right': e.access.right }),
    parameters: [...parameters(e.params, 'path'), ...parameters(e.query, 'query')],
    ...(e.takes
      ? {
          requestBody: {
            required: true,
            content: { [e.takes]: { schema: { type: 'string', format: 'binary' } } },
          },
        }
      : {}),
    ...(e.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(e.body, 'input') } },
          },
        }
      : {}),
    responses: answers(e),
  }
}

/** The OpenAPI 3.1 document of a list of endpoints (OpenAPI Specification 3.1.0). */
export function openApiDocument(
  endpoints: readonly Endpoint[],
  info: { title: string; version: string },
): Json {
  const paths: Record<string, Json> = {}
  for (const e of endpoints) {
    const path = e.path.replace(/:([a-zA-Z]+)/g, '{$1}')
    paths[path] = { ...paths[path], [e.method.toLowerCase()]: operation(e) }
  }
  return {
    openapi: '3.1.0',
    info,
    servers: [{ url: '/api' }],
    security: [{ session: [] }],
    paths,
    components: {
      schemas: { Problem: schemaOf(problem, 'output') },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'flimbo_session' } },
    },
  }
}
