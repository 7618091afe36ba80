import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler, Response } from 'express';
import multer from 'multer';
import type { Logger } from 'pino';
import type { ProblemReply } from '@syndeton/contract';
import { Refusal, statusOf, titleOf, type RefusalCode } from './refusal.ts';

function sendProblem(response: Response, status: number, title: string, code: string, detail: string): void {
  const problem: ProblemReply = { type: `urn:syndeton:problem:${code}`, title, status, code, detail };
  response.status(status).type('application/problem+json').send(JSON.stringify(problem));
}

/** RFC 9457. What we refuse has a code; anything else is a 500 with an id that the log has too. */
export function handleErrors(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const refusal = asRefusal(error);
    if (refusal) {
      sendProblem(response, statusOf[refusal.code], titleOf[refusal.code], refusal.code, refusal.message);
      return;
    }
    const id = randomUUID();
    log.error({ err: error, id }, 'unexpected');
    sendProblem(
      response,
      500,
      'Something went wrong here',
      'unexpected',
      `Something went wrong here; nothing was saved. The log has it under ${id}.`,
    );
  };
}

function asRefusal(error: unknown): Refusal | undefined {
  if (error instanceof Refusal) return error;
  // a refusal that crossed from a worker thread arrives as a plain error with its code
  if (error instanceof Error && 'code' in error && typeof error.code === 'string' && error.code in statusOf)
    return new Refusal(error.code as RefusalCode, error.message);
  if (error instanceof multer.MulterError) {
    if (error.code === 'LIMIT_FILE_SIZE')
      return new Refusal('archive-too-large', 'The archive is larger than 200 MB, the most a site may have.');
    return new Refusal(
      'bad-request',
      `The upload is not as described: ${error.message}${error.field ? ` (${error.field})` : ''}. Send one zip as "archive" and a "name".`,
    );
  }
  if (error instanceof SyntaxError && 'body' in error)
    return new Refusal('bad-request', `The request is not JSON: ${error.message}.`);
  if (error instanceof Error && 'type' in error && error.type === 'entity.too.large')
    return new Refusal('archive-too-large', 'The request is larger than 25 MB.');
  return undefined;
}
