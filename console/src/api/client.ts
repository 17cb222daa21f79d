import { t } from '../messages'
/** A problem of a document, as the API returns it. */
export type ApiProblem = {
  weight?: 'ERROR' | 'WARNING'
  message: string
  field?: string
  place?: { line: number; column: number; offset: number; length: number } | null
  suggestion: string | null
}

/** A refusal of the service (RFC 9457), or a service that does not answer (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: ApiProblem[] = [],
  ) {
    super(message)
  }
}

function csrfToken(): string {
  const cookie = document.cookie.split('; ').find((each) => each.startsWith('XSRF-TOKEN='))
  return cookie ? decodeURIComponent(cookie.slice('XSRF-TOKEN='.length)) : ''
}

async function refusal(response: Response): Promise<ApiError> {
  try {
    const problem = (await response.json()) as { detail?: string; problems?: ApiProblem[] }
    return new ApiError(response.status, problem.detail ?? response.statusText, problem.problems)
  } catch {
    return new ApiError(response.status, t('api.the_service_answered_with_status', { status: response.status }))
  }
}

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
  signal?: AbortSignal,
): Promise<T> {
  return send(
    method,
    path,
    body === undefined ? undefined : JSON.stringify(body),
    { 'Content-Type': 'application/json', ...headers },
    signal,
  )
}

async function send<T>(
  method: string,
  path: string,
  body: string | Blob | undefined,
  headers: Record<string, string>,
  signal?: AbortSignal,
): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, {
      method,
      headers: { Accept: 'application/json, application/schema+json', 'X-XSRF-TOKEN': csrfToken(), ...headers },
      ...(body === undefined ? {} : { body }),
      ...(signal ? { signal } : {}),
    })
  } catch {
    if (signal?.aborted) throw new ApiError(0, t('api.stopped'))
    throw new ApiError(0, t('api.the_service_cannot_be_reached'))
  }
  if (!response.ok) throw await refusal(response)
  const text = await response.text()
  return (text === '' ? undefined : JSON.parse(text)) as T
}

async function readText(path: string): Promise<string> {
  let response: Response
  try {
    response = await fetch(path, { headers: { Accept: 'application/yaml, application/problem+json' } })
  } catch {
    throw new ApiError(0, t('api.the_service_cannot_be_reached'))
  }
  if (!response.ok) throw await refusal(response)
  return response.text()
}

export const api = {
  get: <T>(path: string) => call<T>('GET', path),
  /** A signal stops the wait; the service then cancels what it runs for this request. */
  post: <T>(path: string, body?: unknown, headers?: Record<string, string>, signal?: AbortSignal) =>
    call<T>('POST', path, body, headers, signal),
  /** A definition as JSON, which the service reads as the YAML that it is too. */
  document: <T>(method: 'POST' | 'PUT', path: string, document: object) =>
    send<T>(method, path, JSON.stringify(document, null, 1), { 'Content-Type': 'application/yaml' }),
  text: <T>(path: string, text: string, type: string) => send<T>('POST', path, text, { 'Content-Type': type }),
  /** A text as it is, such as a document. */
  read: (path: string) => readText(path),
  saveText: <T>(path: string, text: string) => send<T>('PUT', path, text, { 'Content-Type': 'application/yaml' }),
  /** A file as it is, with the type that the browser takes it for. */
  file: (method: 'PUT', path: string, file: File) => send<undefined>(method, path, file, { 'Content-Type': file.type }),
  put: <T>(path: string, body: unknown) => call<T>('PUT', path, body),
  delete: <T = undefined>(path: string) => call<T>('DELETE', path),
}
