import type { Request, RequestHandler, Response, Router } from 'express';
import { z } from 'zod';
import {
  type AnswerOf,
  type BodyTaken,
  COMMON_ERRORS,
  type ParamsTaken,
  type QueryTaken,
  type Route,
} from '#contract/route';
import { toAppError } from './errors';

/** A request whose words were read. */
export interface Asked<R extends Route> {
  readonly params: ParamsTaken<R>;
  readonly query: QueryTaken<R>;
  /** Left out where the body is bytes, or is read by a job. */
  readonly body: BodyTaken<R>;
  readonly request: Request;
  readonly response: Response;
}

/** An answer with a status of its own. */
export interface Made<A> {
  readonly status: number;
  readonly made: A;
}

/** An answer that is JSON already: a document is sent as the database has it. */
export interface AsJson {
  readonly json: string;
}

/** The handler has answered by itself: a file. */
export const SENT = { isSent: true } as const;

type Handler<R extends Route> = (
  asked: Asked<R>,
) => Promise<(AnswerOf<R> extends undefined ? void : AnswerOf<R>) | Made<AnswerOf<R>> | AsJson | typeof SENT>;

const METHODS = { GET: 'get', POST: 'post', PUT: 'put', PATCH: 'patch', DELETE: 'delete' } as const;

/** Answers a route of the contract: reads what was asked by its schemas and sends what the handler gives. */
export function serve<R extends Route>(
  router: Router,
  route: R,
  handler: Handler<R>,
  ...before: readonly RequestHandler[]
): void {
  router[METHODS[route.method]](route.path, ...before, async (request: Request, response: Response) => {
    const read = (schema: Route['query'] | 'bytes', value: unknown) =>
      schema === undefined || schema === 'bytes' ? undefined : schema.parse(value);
    try {
      const answer = await handler({
        params: read(route.params, request.params) as ParamsTaken<R>,
        query: read(route.query, request.query) as QueryTaken<R>,
        body: (Buffer.isBuffer(request.body) ? undefined : read(route.body, request.body)) as BodyTaken<R>,
        request,
        response,
      });
      if (answer !== SENT) send(route, response, answer);
    } catch (error) {
      const { code } = toAppError(error);
      if (isChecked(response) && !COMMON_ERRORS.includes(code) && !route.errors?.includes(code))
        throw new Error(`${route.method} ${route.path} does not say that it may answer ${code}`, { cause: error });
      throw error;
    }
  });
}

const isChecked = (response: Response) => response.app.get(CHECKS_ANSWERS) === true;

function send(route: Route, response: Response, answer: unknown): void {
  const { answer: schema } = route;
  const check = (value: unknown) => {
    if (isChecked(response)) (schema instanceof z.ZodType ? schema : z.undefined()).parse(value);
  };
  if (isAsJson(answer)) {
    check(isChecked(response) ? JSON.parse(answer.json) : null);
    response.type('json').send(answer.json);
    return;
  }
  const { status, made } = isMade(answer) ? answer : { status: schema === undefined ? 204 : 200, made: answer };
  check(made);
  if (made === undefined) response.status(status).end();
  else response.status(status).json(made);
}

/** A setting of the app: answers and refusals are held against the contract. For tests, which then hold both sides to it. */
export const CHECKS_ANSWERS = 'checks answers';

const isAsJson = (answer: unknown): answer is AsJson =>
  typeof answer === 'object' && answer !== null && 'json' in answer && Object.keys(answer).length === 1;
const isMade = (answer: unknown): answer is Made<unknown> =>
  typeof answer === 'object' && answer !== null && 'made' in answer && 'status' in answer;
