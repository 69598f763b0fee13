import express, { type RequestHandler } from 'express';
import { AppError } from './errors';

/** Takes a JSON body as it came, to be read by a job: reading megabytes here would keep every other request waiting. */
export function bodyBytes(limit: number): RequestHandler {
  const take = express.raw({ type: 'application/json', limit });
  return (request, response, next) => {
    take(request, response, (error?: unknown) => {
      if (error !== undefined) next(error);
      else if (Buffer.isBuffer(request.body)) next();
      else next(new AppError('bad-request', [{ path: '', message: 'expected a body of JSON' }]));
    });
  };
}
