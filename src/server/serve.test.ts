import express, { type NextFunction, type Request, type Response, Router } from 'express';
import request from 'supertest';
import { z } from 'zod';
import { route } from '#contract/route';
import { AppError } from './errors';
import { CHECKS_ANSWERS, serve } from './serve';

const COUNT = route({ method: 'GET', path: '/api/count', answer: z.object({ tunes: z.int() }), errors: ['not-found'] });

/** An app with one route; what it throws is its answer. */
function appThat(handler: () => Promise<{ tunes: number }>, checks = true) {
  const router = Router();
  serve(router, COUNT, handler);
  return express()
    .set(CHECKS_ANSWERS, checks)
    .use(router)
    .use((error: Error, _request: Request, response: Response, _next: NextFunction) => {
      response.status(500).send(error.message);
    });
}

test('an answer that is not as the contract says is found where answers are checked, and only there', async () => {
  const wrong = () => Promise.resolve({ tunes: 'three' } as never);
  expect((await request(appThat(wrong)).get('/api/count')).status).toBe(500);
  expect((await request(appThat(wrong, false)).get('/api/count')).status).toBe(200);
});

test('a refusal that the route does not tell of is found, one that it tells of is not', async () => {
  const refusing = (code: 'not-found' | 'stale-save') => () => Promise.reject(new AppError(code));
  const undeclared = await request(appThat(refusing('stale-save'))).get('/api/count');
  expect(undeclared.text).toBe('GET /api/count does not say that it may answer stale-save');
  const declared = await request(appThat(refusing('not-found'))).get('/api/count');
  expect(declared.text).toBe('There is nothing here: the tune may have been removed.');
});
