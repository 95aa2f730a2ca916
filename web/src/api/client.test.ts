import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { api, Problem } from './client';

const fetched = vi.fn<typeof fetch>();

beforeEach(() => {
  vi.stubGlobal('fetch', fetched);
  document.cookie = 'XSRF-TOKEN=token%2F1';
});
afterEach(() => {
  vi.unstubAllGlobals();
  fetched.mockReset();
});

const answer = (status: number, body: unknown) => new Response(body === '' ? null : JSON.stringify(body), { status });
const sent = () => fetched.mock.calls[0]?.[1] as RequestInit & { headers: Record<string, string> };

describe('requests', () => {
  test('that change something carry the token of the session', async () => {
    fetched.mockResolvedValue(answer(200, { revision: 2 }));
    expect(await api.post('/api/v1/session', {}, { name: 'a', password: 'b' })).toEqual({ revision: 2 });
    expect(sent().headers['X-XSRF-TOKEN']).toBe('token/1');
    expect(sent().headers['Content-Type']).toBe('application/json');
    expect(sent().body).toBe('{"name":"a","password":"b"}');
  });

  test('that only read do not', async () => {
    fetched.mockResolvedValue(answer(200, []));
    await api.get('/api/v1/instruments');
    expect(sent().headers['X-XSRF-TOKEN']).toBeUndefined();
  });

  test('with a file leave the boundary to the browser', async () => {
    fetched.mockResolvedValue(answer(200, {}));
    await api.post('/api/v1/studies/{slug}/pictures', { slug: 'meadow' }, new FormData());
    expect(sent().headers['Content-Type']).toBeUndefined();
  });

  test('name their parameters in the address, and the rest behind a question mark', async () => {
    fetched.mockImplementation(() => Promise.resolve(answer(200, [])));
    await api.get('/api/v1/studies/{slug}/columns', { slug: 'a/b', character: ['leaf margin', 'hairs'] });
    expect(fetched.mock.calls[0]?.[0]).toBe('/api/v1/studies/a%2Fb/columns?character=leaf%20margin&character=hairs');
    await api.get('/api/v1/studies', { from: 0, count: undefined });
    expect(fetched.mock.calls[1]?.[0]).toBe('/api/v1/studies?from=0');
  });

  test('may be answered by nothing', async () => {
    fetched.mockResolvedValue(answer(200, ''));
    expect(await api.delete('/api/v1/session')).toBeUndefined();
  });
});

describe('problems', () => {
  async function problem(response: Response | Error): Promise<Problem> {
    if (response instanceof Error) fetched.mockRejectedValue(response);
    else fetched.mockResolvedValue(response);
    return api.get('/api/v1/instruments').then(
      () => {
        throw new Error('It should have failed');
      },
      (failure: Problem) => failure,
    );
  }

  test('keep the sentence, the code and the details of the server', async () => {
    const failure = await problem(answer(409, { code: 'cell-changed', detail: 'Changed meanwhile.', conflicts: [1] }));
    expect(failure).toBeInstanceOf(Problem);
    expect([failure.status, failure.code, failure.message, failure.details.conflicts]).toEqual([
      409,
      'cell-changed',
      'Changed meanwhile.',
      [1],
    ]);
  });

  test('that are not JSON still have a sentence', async () => {
    const failure = await problem(new Response('<html>', { status: 502 }));
    expect(failure.message).toBe('The server answered 502.');
  });

  test('of the network say that nothing is lost', async () => {
    const failure = await problem(new Error('refused'));
    expect(failure.code).toBe('no-connection');
    expect(failure.message).toContain('What you typed is kept');
  });
});
