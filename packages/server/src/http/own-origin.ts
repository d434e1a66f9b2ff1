import type { NextFunction, Request, Response } from 'express';

const OWN_HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Refuses requests that another site could have caused: a Host that is not this machine (DNS
 * rebinding), or an Origin other than the one the application is served from.
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
  } else {
    next();
  }
}

function refuse(response: Response, message: string): void {
  response.status(403).json({ statusCode: 403, message });
}
