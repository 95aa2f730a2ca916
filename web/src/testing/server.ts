import { afterEach, beforeEach, vi } from 'vitest';

type Reply = unknown | ((body: unknown) => unknown);

/** An answer that is a problem. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly body: Record<string, unknown>,
  ) {}
}

/**
 * Stands in for the server in a test file: answers by "METHOD path", records what was asked, and fails the request of
 * what it does not know.
 */
export function fakeServer() {
  const routes = new Map<string, Reply>();
  const asked: { route: string; body: unknown }[] = [];

  beforeEach(() => {
    vi.stubGlobal('fetch', async (path: string, init: RequestInit = {}) => {
      const route = `${init.method ?? 'GET'} ${path}`;
      const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : init.body;
      asked.push({ route, body });
      if (!routes.has(route)) throw new Error(`The test has no answer to ${route}`);
      const reply = routes.get(route);
      const answer: unknown = typeof reply === 'function' ? await reply(body) : reply;
      const [status, content] = answer instanceof Refusal ? [answer.status, answer.body] : [200, answer];
      return new Response(content === undefined ? null : JSON.stringify(content), { status });
    });
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    routes.clear();
    asked.length = 0;
    document.body.replaceChildren();
  });

  return {
    on: (route: string, reply: Reply) => routes.set(route, reply),
    asked,
    bodies: (route: string) => asked.filter((a) => a.route === route).map((a) => a.body),
  };
}
