import type { components, paths } from './schema';

export type Schemas = components['schemas'];

type Method = 'get' | 'post' | 'put' | 'delete';

/** Addresses of the API that take a method, as its document names them. */
type Addresses<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, { responses: unknown }> ? P : never;
}[keyof paths];

type Operation<M extends Method, P extends Addresses<M>> = paths[P][M];
type Named<O, In extends string> = O extends { parameters: { [K in In]?: infer N } }
  ? [N] extends [undefined]
    ? unknown
    : Exclude<N, undefined>
  : unknown;

/** What stands in the address and behind its question mark, in one object: names are told apart by the address. */
type Parameters<M extends Method, P extends Addresses<M>> = Named<Operation<M, P>, 'path'> &
  Named<Operation<M, P>, 'query'>;

type Content<O> = O extends { content: infer C } ? C[keyof C] : undefined;

type Body<M extends Method, P extends Addresses<M>> =
  Operation<M, P> extends { requestBody?: infer B }
    ? [B] extends [undefined]
      ? undefined
      : Exclude<B, undefined> extends { content: { 'application/json': infer J } }
        ? J
        : FormData
    : undefined;

type Answer<M extends Method, P extends Addresses<M>> =
  Operation<M, P> extends { responses: infer R } ? Content<R[keyof R & (200 | 201 | 204)]> : never;

/** Leaves out what an operation does not take. */
type Rest<M extends Method, P extends Addresses<M>> =
  Body<M, P> extends undefined
    ? Record<string, never> extends Parameters<M, P>
      ? [parameters?: Parameters<M, P>]
      : [parameters: Parameters<M, P>]
    : Body<M, P> extends FormData
      ? // The fields of a form stand in it, not behind a question mark.
        [parameters: Named<Operation<M, P>, 'path'> & Partial<Named<Operation<M, P>, 'query'>>, body: FormData]
      : [parameters: Parameters<M, P>, body: Body<M, P>];

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

function problemOf(status: number, body: Record<string, unknown>): Problem {
  const sentence = typeof body.detail === 'string' ? body.detail : `The server answered ${status}.`;
  return new Problem(status, typeof body.code === 'string' ? body.code : 'failed', sentence, body);
}

const noConnection = () =>
  new Problem(0, 'no-connection', 'The server cannot be reached. What you typed is kept; try again.', {});

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
    throw noConnection();
  }
  if (!response.ok) throw problemOf(response.status, await response.json().catch(() => ({})));
  return response;
}

type Parameter = string | number | boolean | undefined | null | readonly (string | number)[];

/** An address with its parameters; those that it does not name follow its question mark. */
function address(path: string, parameters: object = {}): string {
  const given = Object.entries(parameters) as [string, Parameter][];
  const query: string[] = [];
  let filled = path;
  for (const [name, value] of given) {
    if (path.includes(`{${name}}`)) {
      filled = filled.replace(`{${name}}`, encodeURIComponent(String(value)));
    } else if (value !== undefined && value !== null) {
      for (const one of Array.isArray(value) ? value : [value])
        query.push(`${name}=${encodeURIComponent(String(one))}`);
    }
  }
  return query.length ? `${filled}?${query.join('&')}` : filled;
}

/** Where something is to be had that the browser loads by itself: a file, a page to print. */
export const addressOf = <P extends Addresses<'get'>>(path: P, parameters: Parameters<'get', P>) =>
  address(path, parameters as object);

async function request<T>(method: string, path: string, body?: unknown): Promise<T> {
  const text = await (await respond(method, path, 'application/json', body)).text();
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

function parsed(text: string): Record<string, unknown> {
  try {
    return JSON.parse(text);
  } catch {
    return {};
  }
}

/** The one way in which a browser tells how much of a body is on its way. */
function send<T>(path: string, form: FormData, told: (share: number) => void, signal: AbortSignal): Promise<T> {
  return new Promise((resolve, reject) => {
    const sending = new XMLHttpRequest();
    sending.open('POST', path);
    sending.setRequestHeader('Accept', 'application/json');
    sending.setRequestHeader('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
    sending.upload.onprogress = (event) => told(event.total ? event.loaded / event.total : 0);
    sending.onerror = () => reject(noConnection());
    sending.onload = () => {
      const body = parsed(sending.responseText);
      if (sending.status < 400) resolve(body as T);
      else reject(problemOf(sending.status, body));
    };
    signal.addEventListener('abort', () => {
      sending.abort();
      reject(noConnection());
    });
    sending.send(form);
  });
}

/** The operations of the API. Which addresses there are, what they take and what they answer comes from its document. */
export const api = {
  get: <P extends Addresses<'get'>>(path: P, ...[parameters]: Rest<'get', P>) =>
    request<Answer<'get', P>>('GET', address(path, parameters as object)),
  post: <P extends Addresses<'post'>>(path: P, ...[parameters, body]: Rest<'post', P>) =>
    request<Answer<'post', P>>('POST', address(path, parameters as object), body ?? {}),
  put: <P extends Addresses<'put'>>(path: P, ...[parameters, body]: Rest<'put', P>) =>
    request<Answer<'put', P>>('PUT', address(path, parameters as object), body),
  delete: <P extends Addresses<'delete'>>(path: P, ...[parameters]: Rest<'delete', P>) =>
    request<Answer<'delete', P>>('DELETE', address(path, parameters as object)),
  /** Sends a large form and tells how much of it is there. */
  send: <P extends Addresses<'post'>>(
    path: Body<'post', P> extends FormData ? P : never,
    form: FormData,
    told: (share: number) => void,
    signal: AbortSignal,
  ) => send<Answer<'post', P>>(path, form, told, signal),
  /** A file that the server makes of what is sent. */
  file: async <P extends Addresses<'post'>>(path: P, ...[parameters, body]: Rest<'post', P>) =>
    (await respond('POST', address(path, parameters as object), '*/*', body)).blob(),
};
