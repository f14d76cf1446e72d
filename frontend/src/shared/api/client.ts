import createClient from 'openapi-fetch'
import { noteGiven } from './readAt'
import { readerHeaders } from './readerHeaders'
import type { components, paths } from './schema'
import { under } from './under'

export const api = createClient<paths>({ baseUrl: under('/') })

api.use({
  onRequest({ request }) {
    for (const [name, value] of Object.entries(readerHeaders())) request.headers.set(name, value)
    return request
  },
})

export type Schemas = components['schemas']

export type FieldError = { field: string; reason: string }

export type CurrentForm = { revision: string; form: Record<string, unknown> | null }

/** A refusal of the server (RFC 9457), in the keeper's words. */
export class Problem extends Error {
  constructor(
    readonly detail: string,
    readonly status: number,
    readonly fields: FieldError[],
    /** The field that lets it pass after all, when the house only asks. */
    readonly confirm?: string,
    /** What a form holds that somebody changed since it was read. */
    readonly current?: CurrentForm,
  ) {
    super(detail)
  }
}

export function isNotFound(error: unknown): boolean {
  return error instanceof Problem && error.status === 404
}

/** The data of an answer; throws Problem when the server refused or cannot be reached. */
export async function answer<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await request.catch(() => {
    throw new Problem('Sandboa does not answer. What you entered is still here.', 0, [])
  })
  if (data !== undefined) {
    noteGiven(data, response)
    return data
  }
  throw problemOf(error, response.status)
}

/** Of an answer without a body: throws Problem when the server refused. */
export async function done(
  request: Promise<{ error?: unknown; response: Response }>,
): Promise<true> {
  return answer(
    request.then(({ error, response }) => ({
      ...(response.ok ? { data: true as const } : { error }),
      response,
    })),
  )
}

export function problemOf(body: unknown, status: number): Problem {
  const told = (body ?? {}) as {
    detail?: unknown
    errors?: FieldError[]
    confirm?: string
    current?: CurrentForm
  }
  const detail = typeof told.detail === 'string' ? told.detail : 'That did not work.'
  const fields = Array.isArray(told.errors) ? told.errors : []
  return new Problem(detail, status, fields, told.confirm, told.current)
}
