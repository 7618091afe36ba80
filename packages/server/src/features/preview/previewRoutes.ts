import { Router, type Request, type RequestHandler } from 'express';
import { extensionOf, fileKindOf, runEndings, withoutCode } from '@syndeton/core';
import mime from 'mime-types';
import type { FileReader } from '../files/index.ts';

/** The page may be looked at and measured by the application; it may run nothing, send nothing and reach nothing outside. */
const policy = [
  "default-src 'none'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data:",
  "font-src 'self' data:",
  "media-src 'self' data:",
  "frame-ancestors 'self'",
  "base-uri 'self'",
  "form-action 'none'",
  'sandbox allow-same-origin',
].join('; ');

/** `/preview/SITE/STATE/path`: a file as it is in a revision (`r3`) or the draft, byte for byte. */
export function previewRoutes(fileIn: FileReader, admit: (request: Request, siteId: string) => Promise<void>): Router {
  const router = Router();
  router.get('/preview/:id/:state/*path', async (request, response) => {
    const { id, state } = request.params;
    await admit(request, id);
    const path = request.params.path.join('/');
    const bytes = await fileIn(id, state, path);
    response.removeHeader('x-frame-options');
    response.setHeader('content-security-policy', policy);
    response.setHeader('referrer-policy', 'same-origin');
    response.setHeader('cache-control', 'no-store');
    // no charset: the page's own bytes say it, as on a plain server
    response.setHeader('content-type', typeOf(path));
    response.end(runEndings.has(extensionOf(path)) ? asSent(bytes) : bytes);
  });
  return router;
}

/** What a server runs stays there; each byte as one character, so that the page's encoding does not matter. */
const asSent = (bytes: Uint8Array): Buffer => Buffer.from(withoutCode(Buffer.from(bytes).toString('latin1')), 'latin1');

const typeOf = (path: string): string =>
  fileKindOf(path, runEndings) === 'page' ? 'text/html' : mime.lookup(path) || 'application/octet-stream';

/** A page's root-relative address (`/img/x.png`) leaves its preview: lead it back by the page that asked. */
export const leadBackToPreview: RequestHandler = (request, response, next) => {
  const from = /^https?:\/\/[^/]+(\/preview\/[^/]+\/[^/]+)\//.exec(request.headers.referer ?? '');
  if (!from || request.path.startsWith('/preview/') || request.path.startsWith('/api/') || request.method !== 'GET')
    next();
  else response.redirect(307, from[1]! + request.url);
};
