import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import type { Socket } from 'node:net';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { AppError } from './errors';
import { peerUser } from './peerUser';

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
    // In no frame, also for browsers that read only the older header.
    xFrameOptions: { action: 'deny' },
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

export interface DoorKeys {
  /** What cookies are made from; nobody else knows it. */
  readonly secret: string;
  /** Whether a key in a link lets in. */
  readonly isKey: (key: string) => boolean;
  /** Whether it is the key of the link at all, used up or not: of that nothing stays in the address. */
  readonly isLink: (key: string) => boolean;
  /** Who needs no key. */
  readonly isKnown?: (request: Request) => boolean;
}

/** A key that lets in each time. */
export function lastingKey(secret: string): DoorKeys {
  const isKey = (key: string) => isSame(key, secret);
  return { secret, isKey, isLink: isKey };
}

/** Keys of this machine: its own user is known, others come in once by a link that is used up then. */
export function machineKeys(secret: string, link: string | null, isKnown: (request: Request) => boolean): DoorKeys {
  let unused = link;
  const isLink = (key: string) => link !== null && isSame(key, link);
  const isKey = (key: string) => {
    if (unused === null || !isSame(key, unused)) return false;
    unused = null;
    return true;
  };
  return { secret, isKey, isLink, isKnown };
}

/** Whether a request comes from the user whose Morrin this is, or who may do everything on the machine anyway. */
export function isOwnUser(own: number | undefined): (request: Request) => boolean {
  const known = new WeakMap<Socket, boolean>();
  return ({ socket }) => {
    let isOwn = known.get(socket);
    if (isOwn === undefined) {
      const user = peerUser(socket);
      isOwn = user !== null && (user === own || user === 0);
      known.set(socket, isOwn);
    }
    return isOwn;
  };
}

/** Whether two texts are the same, in a time that tells nothing of where they differ. */
function isSame(one: string, other: string): boolean {
  const [a, b] = [one, other].map((text) => createHash('sha256').update(text).digest());
  return timingSafeEqual(a!, b!);
}

/**
 * Lets in who is known, and who came once by a link with a key, `/?key=…`: it gives a cookie that scripts cannot read and
 * other sites cannot send, and leads to the same address without the key.
 */
export function onlyWithKey({ secret, isKey, isLink, isKnown }: DoorKeys): RequestHandler {
  const token = createHmac('sha256', secret).update(COOKIE).digest('base64url');
  return (request: Request, response: Response, next: NextFunction) => {
    const kept = new RegExp(`(?:^|; *)${COOKIE}=([^;]+)`).exec(request.headers.cookie ?? '')?.[1];
    const isIn = isKnown?.(request) || (kept !== undefined && isSame(kept, token));
    const { key } = request.query;
    const asked = request.method === 'GET' && typeof key === 'string' ? key : null;
    if (isIn) {
      // Whoever is in already may open the link as well: the book would take its key for that of a tune.
      if (asked !== null && isLink(asked)) response.redirect(303, request.path);
      else next();
      return;
    }
    if (asked !== null && isKey(asked)) {
      response.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', maxAge: YEAR_MS, secure: request.secure });
      response.redirect(303, request.path);
      return;
    }
    // Who opens the page is told in words what to do; what asks for data, by its code.
    if (request.method !== 'GET' || request.path.startsWith('/api')) throw new AppError('no-key');
    response.status(403).type('html').send(NO_KEY_PAGE);
  };
}

const NO_KEY_PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Morrin</title>
<h1>This Morrin is somebody’s own</h1>
<p>It is open to who started it, and to whoever comes by the link with the key that it wrote where it was started. Open that link once; this browser is let in from then on.</p></html>
`;
