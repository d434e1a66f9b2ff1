import type { Server } from 'node:http';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import helmet from 'helmet';
import { AppModule } from './app.module.js';
import { FolderLock } from './database/folder-lock.js';
import { DocumentThreads } from './documents/document-threads.js';
import { BodyPipe } from './http/body-pipe.js';
import { readJsonBody, refuseCompressed, refuseLargerThan } from './http/json-body.js';
import { rememberRequest } from './http/last-resort.js';
import { ownOriginOnly } from './http/own-origin.js';
import { RefusalFilter } from './http/refusal-filter.js';
import { UnexpectedFilter } from './http/unexpected-filter.js';
import { serveWebApp } from './http/web-app.js';
import { MODEL_LIMIT, type Settings } from './settings.js';

/**
 * Milliseconds for the headers and the body of a request: slow senders are cut off. An idle connection stays open
 * longer than one looks at a screen: closing it while it is used again would lose a request.
 */
const PATIENCE = {
  headersTimeout: 10_000,
  requestTimeout: 120_000,
  connectionsCheckingInterval: 5_000,
  keepAliveTimeout: 300_000,
};

/** Bytes of a form beside its files: names and borders of 300 of them. */
const FORM_WORDS = 2 ** 18;

/**
 * The server, ready to listen.
 *
 * @throws FolderInUse where another server has its data folder
 */
export async function createApp(settings: Settings): Promise<NestExpressApplication> {
  const lock = FolderLock.take(settings.dataFolder);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.of(settings, lock), {
    abortOnError: false,
    logger: ['error', 'warn'],
    bodyParser: false,
    // Stopping the server ends its connections: an open tab keeps one alive.
    forceCloseConnections: true,
  });
  app.disable('x-powered-by');
  Object.assign(app.getHttpServer() as Server, PATIENCE);
  app.use(rememberRequest);
  app.use(ownOriginOnly);
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // Rigid bodies are a program of their own, compiled where it runs; nothing else is.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // styled-components writes its rules into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'", 'blob:', 'data:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(compression());
  app.use(refuseCompressed);
  app.use('/api/models', refuseLargerThan(MODEL_LIMIT + FORM_WORDS));
  app.use(readJsonBody);
  app.useBodyParser('raw', { type: 'image/png', limit: '256mb', inflate: false });
  if (settings.webFolder !== null) serveWebApp(app.getHttpAdapter().getInstance(), settings.webFolder);
  app.useGlobalPipes(new BodyPipe(app.get(DocumentThreads)));
  app.useGlobalFilters(new UnexpectedFilter(), new RefusalFilter());
  app.enableShutdownHooks();
  const api = new DocumentBuilder().setTitle('Fleet Rail').setVersion('1').build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, api));
  return app;
}
