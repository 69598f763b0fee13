import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { AppError } from './errors';

const LOOPBACK_NAMES = ['127.0.0.1', 'localhost', '[::1]'];

/** Headers of every answer; scripts, styles and workers only from here, styles added by code only with the page's nonce. */
export function securityHeaders(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'none'"],
        'script-src': ["'self'"],
        'style-src': ["'self'", (_request, response) => `'nonce-${(response as Response).locals.nonce as string}'`],
        'img-src': ["'self'", 'data:'],
        'font-src': ["'self'"],
        'connect-src': ["'self'"],
        'worker-src': ["'self'"],
        'manifest-src': ["'self'"],
        'base-uri': ["'none'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
      },
    },
    // Plain loopback has no TLS to insist on.
    strictTransportSecurity: false,
  });
}

/** Refuses hosts the server is not meant to be known by, and changes asked for by pages of other origins. */
export function sameOriginOnly(allowedHosts: readonly string[]): RequestHandler {
  const allowed = new Set([...LOOPBACK_NAMES, ...allowedHosts]);
  return (request: Request, _response: Response, next: NextFunction) => {
    const host = request.headers.host ?? '';
    const name = host.replace(/:\d+$/, '');
    const { origin } = request.headers;
    const isForeign = origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`;
    if (!allowed.has(name) || (isForeign && !['GET', 'HEAD'].includes(request.method)))
      throw new AppError('wrong-origin');
    next();
  };
}

const COOKIE = 'morrin-key';
const YEAR_MS = 365 * 24 * 60 * 60 * 1000;

/**
 * Lets in only who came once by a link with the key, `/?key=…`: it gives a cookie that scripts cannot read and other sites
 * cannot send, and leads to the same address without the key.
 */
export function onlyWithKey(secret: string): RequestHandler {
  const token = createHmac('sha256', secret).update(COOKIE).digest('base64url');
  const isSame = (one: string, other: string) => {
    const [a, b] = [one, other].map((text) => createHash('sha256').update(text).digest());
    return timingSafeEqual(a!, b!);
  };
  return (request: Request, response: Response, next: NextFunction) => {
    const kept = new RegExp(`(?:^|; *)${COOKIE}=([^;]+)`).exec(request.headers.cookie ?? '')?.[1];
    if (kept !== undefined && isSame(kept, token)) {
      next();
      return;
    }
    const { key } = request.query;
    if (request.method !== 'GET' || typeof key !== 'string' || !isSame(key, secret)) throw new AppError('no-key');
    response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', maxAge: YEAR_MS, secure: request.secure });
    response.redirect(303, request.path);
  };
}
