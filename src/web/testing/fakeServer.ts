import { abilityRoutes, NO_ABILITY } from '#contract/ability';
import { bookRoutes } from '#contract/book';
import type { ErrorCode } from '#contract/errors';
import { logRoutes } from '#contract/log';
import { DEFAULT_PEGS, pegsRoutes } from '#contract/pegs';
import type { AnswerOf, Route } from '#contract/route';
import { ROUTES } from '#contract/routes';
import { DEFAULT_SETTINGS, settingsRoutes } from '#contract/settings';

/** A request as it came to the fake server. */
export interface Heard {
  readonly route: Route;
  readonly path: string;
  readonly search: URLSearchParams;
  readonly body: unknown;
}

type Reply = { readonly answer: unknown } | { readonly refused: ErrorCode; readonly details?: unknown } | 'nothing';

/** A server that answers by the routes of the contract: what a page asks for without an answer set fails the test. */
export interface FakeServer {
  readonly heard: Heard[];
  readonly answer: <R extends Route>(route: R, value: AnswerOf<R> | ((heard: Heard) => AnswerOf<R>)) => void;
  readonly refuse: (route: Route, code: ErrorCode, details?: unknown) => void;
  /** Nothing answers on this route any more. */
  readonly silence: (route: Route) => void;
}

/** Takes the place of `fetch`; settings, fiddles and counting are answered as in a new book. */
export function fakeServer(): FakeServer {
  const heard: Heard[] = [];
  const replies = new Map<Route, (heard: Heard) => Reply>();
  const server: FakeServer = {
    heard,
    answer: (route, value) =>
      void replies.set(route, (one) => ({
        answer: typeof value === 'function' ? (value as (heard: Heard) => unknown)(one) : value,
      })),
    refuse: (route, refused, details) => void replies.set(route, () => ({ refused, details })),
    silence: (route) => void replies.set(route, () => 'nothing'),
  };
  server.answer(settingsRoutes.findSettings, { revision: 0, settings: DEFAULT_SETTINGS });
  server.answer(pegsRoutes.findPegs, { revision: 0, pegs: DEFAULT_PEGS });
  server.answer(bookRoutes.findCounting, { left: 0, givenUp: 0, tunes: 0 });
  server.answer(logRoutes.findMinutes, { days: [] });
  server.answer(abilityRoutes.findAbility, { ability: NO_ABILITY, isCurrent: true, left: 0 });
  globalThis.fetch = (async (request: Request) => {
    const url = new URL(request.url);
    const route = routeOf(request.method, url.pathname);
    const text = await request.text();
    const one: Heard = {
      route,
      path: url.pathname,
      search: url.searchParams,
      body: text.startsWith('{') ? (JSON.parse(text) as unknown) : text,
    };
    heard.push(one);
    const reply = replies.get(route);
    if (!reply) throw new Error(`no answer is set for ${route.method} ${route.path}`);
    const made = reply(one);
    if (made === 'nothing') throw new TypeError('refused');
    if ('refused' in made)
      return new Response(JSON.stringify({ code: made.refused, message: made.refused, details: made.details }), {
        status: 422,
      });
    return made.answer === undefined
      ? new Response(null, { status: 204 })
      : new Response(JSON.stringify(made.answer), { status: 200 });
  }) as typeof fetch;
  return server;
}

function routeOf(method: string, path: string): Route {
  const found = Object.values(ROUTES).find(
    (route) => route.method === method && new RegExp(`^${route.path.replace(/:\w+/g, '[^/]+')}$`).test(path),
  );
  if (!found) throw new Error(`the contract has no ${method} ${path}`);
  return found;
}
