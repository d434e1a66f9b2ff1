import type { NextFunction, Request, Response } from 'express';

const OWN_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Refuses requests that another site could have caused: a Host other than this machine (DNS rebinding), an Origin
 * other than the application's, requests that a browser marks as cross-site, and changes without either header.
 */
export function ownOriginOnly(request: Request, response: Response, next: NextFunction): void {
  const host = request.headers.host ?? '';
  const name = host.replace(/:\d+$/, '');
  const port = request.socket.localPort;
  const origin = request.headers.origin;
  if (!OWN_HOSTS.has(name) || (host !== name && host !== `${name}:${port}`)) {
    refuse(
      response,
      `Host "${host.slice(0, 100)}" is not served here; open the address that the server printed.`,
    );
  } else if (origin !== undefined && origin !== `http://${host}`) {
    refuse(response, `Requests from "${origin.slice(0, 100)}" are not answered.`);
  } else if (isFromElsewhere(request)) {
    refuse(response, 'Requests from other sites are not answered.');
  } else if (!SAFE_METHODS.has(request.method) && origin === undefined && !isOwn(request)) {
    refuse(response, 'A change needs an Origin, a JSON body or the header X-Fleet-Rail.');
  } else {
    next();
  }
}

/** Browsers set this header, and pages of other sites cannot forge it. A link from another site only reads. */
function isFromElsewhere({ headers, method }: Request): boolean {
  const site = headers['sec-fetch-site'];
  if (site === undefined || site === 'same-origin' || site === 'none') return false;
  return !(method === 'GET' && headers['sec-fetch-mode'] === 'navigate');
}

/** Headers that a page of another site cannot send without being asked first, which is never answered. */
function isOwn({ headers }: Request): boolean {
  return (
    headers['sec-fetch-site'] !== undefined ||
    headers['x-fleet-rail'] !== undefined ||
    /^application\/json\b/.test(headers['content-type'] ?? '')
  );
}

function refuse(response: Response, message: string): void {
  response.status(403).json({ statusCode: 403, message });
}
