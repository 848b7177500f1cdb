/** The one way to ask the server: errors come as sentences. */

/** An answer that is no: what happened and what to do, with the fields of the answer. */
export class ApiError extends Error {
  constructor(readonly status: number, sentence: string, readonly data: Record<string, unknown> = {}) {
    super(sentence)
  }

  /** field name → sentence, for forms */
  get fields(): Record<string, string> {
    return (this.data.fields ?? {}) as Record<string, string>
  }
}

/** @throws ApiError for every answer but 2xx, and when there is none */
export async function api<T>(path: string, options: { method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', body?: object, form?: FormData, ticket?: string } = {}): Promise<T> {
  let answer: Response
  try {
    answer = await fetch(path, {
      method: options.method ?? 'GET',
      headers: { ...(options.body ? { 'content-type': 'application/json' } : {}), ...(options.ticket ? { authorization: `Bearer ${options.ticket}` } : {}) },
      body: options.form ?? (options.body && JSON.stringify(options.body)),
    })
  } catch {
    throw new ApiError(0, 'Karstland cannot be reached just now. Nothing on this page is lost; it goes on when the line is back.')
  }
  const data = answer.headers.get('content-type')?.includes('json') ? await answer.json() as Record<string, unknown> : {}
  if (answer.ok) return data as T
  throw new ApiError(answer.status, typeof data.sentence === 'string' ? data.sentence : sentenceFor(answer.status), data)
}

function sentenceFor(status: number): string {
  if (status === 429) return 'That was asked too often in a short time. Wait a minute and try again.'
  return 'Something went wrong on our side. What you entered is still here; try again.'
}

export const sentenceOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))
