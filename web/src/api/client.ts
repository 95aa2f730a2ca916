import type { components } from './schema';

export type Schemas = components['schemas'];

/** What went wrong, as the server says it (problem+json). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: Record<string, unknown>,
  ) {
    super(message);
  }
}

function cookie(name: string): string {
  const found = document.cookie.split('; ').find((c) => c.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : '';
}

async function problemOf(response: Response): Promise<Problem> {
  const body: Record<string, unknown> = await response.json().catch(() => ({}));
  const sentence = typeof body.detail === 'string' ? body.detail : `The server answered ${response.status}.`;
  return new Problem(response.status, typeof body.code === 'string' ? body.code : 'failed', sentence, body);
}

async function respond(method: string, path: string, accept: string, body?: unknown): Promise<Response> {
  const headers: Record<string, string> = { Accept: accept };
  if (method !== 'GET') headers['X-XSRF-TOKEN'] = cookie('XSRF-TOKEN');
  const isForm = body instanceof FormData;
  if (body !== undefined && !isForm) headers['Content-Type'] = 'application/json';
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers,
      body: body === undefined ? undefined : isForm ? body : JSON.stringify(body),
    });
  } catch {
    throw new Problem(0, 'no-connection', 'The server cannot be reached. What you typed is kept; try again.', {});
  }
  if (!response.ok) throw await problemOf(response);
  return response;
}

async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const text = await (await respond(method, path, 'application/json', body)).text();
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

export const api = {
  get: <T>(path: string) => request<T>('GET', path),
  post: <T>(path: string, body?: unknown) => request<T>('POST', path, body ?? {}),
  put: <T>(path: string, body: unknown) => request<T>('PUT', path, body),
  /** A file that the server makes of what is sent. */
  file: async (path: string, body: unknown) => (await respond('POST', path, '*/*', body)).blob(),
  delete: <T>(path: string) => request<T>('DELETE', path),
};
