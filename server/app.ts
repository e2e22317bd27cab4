import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import staticGzip from 'express-static-gzip';
import path from 'node:path';
import type { ServeStaticOptions } from 'serve-static';
import { createSupplier } from './supplier';

const policy = [
  "default-src 'self'",
  // WebAssembly is compiled from a file of our own.
  "script-src 'self' 'wasm-unsafe-eval'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self' data:",
  "worker-src 'self'",
  "connect-src 'self' blob: data:",
  "object-src 'none'",
  "base-uri 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** Serves the built page with isolation (so that memory can be shared with workers), a content policy and caching, and the made-up supplier. */
export function createApp(dist: string, supplier: string, { isTest = false }: { isTest?: boolean } = {}): Express {
  const app = express();
  app.disable('x-powered-by');
  // Without stack traces and paths in answers to what goes wrong.
  app.set('env', 'production');
  app.use((request, response, next) => {
    // A page elsewhere could make its own name lead here and read what this server gives.
    if (!isOwnHost(request.headers.host)) return void response.status(421).type('text').send('This server answers for localhost only.');
    next();
  });
  app.use((_request, response, next) => {
    response.set({
      'Cross-Origin-Opener-Policy': 'same-origin',
      'Cross-Origin-Embedder-Policy': 'require-corp',
      'Cross-Origin-Resource-Policy': 'same-origin',
      'Content-Security-Policy': policy,
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
    });
    next();
  });
  app.get('/health', (_request, response) => void response.json({ ok: true }));
  app.use('/supplier', createSupplier(supplier, isTest));
  // Names with a content hash never change; everything else is asked for again.
  const forever = { immutable: true, maxAge: '1y', fallthrough: false };
  app.use('/_expo', packed(path.join(dist, '_expo'), forever));
  app.use('/assets', packed(path.join(dist, 'assets'), forever));
  app.use(packed(dist, { maxAge: 0 }));
  app.get('/{*path}', (request, response) => {
    if (!isScreen(request.path)) return void response.status(404).type('text').send('There is no such file.');
    response.sendFile(path.join(dist, 'index.html'));
  });
  app.use((error: { status?: number }, _request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) return next(error);
    const status = error.status && error.status >= 400 && error.status < 500 ? error.status : 500;
    response
      .status(status)
      .type('text')
      .send(status === 500 ? 'The server failed; try again.' : 'There is no such file.');
  });
  return app;
}

/** Files, compressed as the build has left them where the browser takes that. */
const packed = (folder: string, serveStatic: ServeStaticOptions) =>
  staticGzip(folder, { enableBrotli: true, orderPreference: ['br', 'gz'], serveStatic });

const isOwnHost = (host: string | undefined): boolean => /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/i.test(host ?? '');

/** Screens are named by words; a dot anywhere means a file. */
const isScreen = (at: string): boolean => /^(\/[\w-]+)*\/?$/.test(at);
