import { join } from 'node:path';
import type { Express, NextFunction, Request, Response } from 'express';
import sirv from 'sirv';

/** A worker that runs a transcoder of pictures, which makes functions from text: it may do that, and nothing else. */
const MAKES_FUNCTIONS = /^\/assets\/transcoder-worker-[\w-]+\.js$/;
const FUNCTIONS_ALONE = "default-src 'none'; script-src 'unsafe-eval'";

/**
 * Serves the built web application: its files, and its page for every address that is neither a
 * file nor the API's, so that a reload anywhere comes back to where it was.
 */
export function serveWebApp(app: Express, webFolder: string): void {
  app.use(
    sirv(webFolder, {
      // Written beside the files when they were built.
      brotli: true,
      etag: true,
      setHeaders(response, path) {
        // Names in assets/ carry a digest of their content.
        const forever = path.startsWith('/assets/');
        response.setHeader('Cache-Control', forever ? 'public, max-age=31536000, immutable' : 'no-cache');
        if (MAKES_FUNCTIONS.test(path)) response.setHeader('Content-Security-Policy', FUNCTIONS_ALONE);
      },
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isPage = request.method === 'GET' && !request.path.startsWith('/api/') && request.accepts('html');
    if (!isPage || /\.\w+$/.test(request.path)) return next();
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(webFolder, 'index.html'));
  });
}
