import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler, Response } from 'express';
import multer from 'multer';
import type { Logger } from 'pino';
import type { ProblemReply } from '@syndeton/contract';
import { Stopped } from '../analysis/siteThreads.ts';
import { databaseTrouble } from '../db/databaseTrouble.ts';
import { Refusal, statusOf, titleOf } from './refusal.ts';

function sendProblem(response: Response, problem: Omit<ProblemReply, 'type'>): void {
  const { status, code } = problem;
  const type = `urn:syndeton:problem:${code}`;
  response
    .status(status)
    .type('application/problem+json')
    .send(JSON.stringify({ type, ...problem } satisfies ProblemReply));
}

/** RFC 9457. What we refuse has a code; anything else is a 500 with an id that the log has too. */
export function handleErrors(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    // nobody is there to be told
    if (error instanceof Stopped) {
      response.destroy();
      return;
    }
    const refusal = asRefusal(error);
    if (refusal) {
      const { code, message, redo } = refusal;
      const said = { title: titleOf[code], status: statusOf[code], code, detail: message };
      sendProblem(response, redo === undefined ? said : { ...said, redo });
      return;
    }
    // the log has the request under it as well
    const id = typeof request.id === 'string' ? request.id : randomUUID();
    log.error({ err: error, id }, 'unexpected');
    sendProblem(response, {
      title: 'Something went wrong here',
      status: 500,
      code: 'unexpected',
      detail: `Something went wrong here. Look at what is there before you do it again; the log has this under ${id}.`,
    });
  };
}

function asRefusal(error: unknown): Refusal | undefined {
  if (error instanceof Refusal) return error;
  if (error instanceof multer.MulterError) {
    if (error.code === 'LIMIT_FILE_SIZE')
      return new Refusal('archive-too-large', 'The archive is larger than 200 MB, the most a site may have.');
    return new Refusal(
      'bad-request',
      `The upload is not as described: ${error.message}${error.field ? ` (${error.field})` : ''}. Send one zip as "archive" and a "name".`,
    );
  }
  if (!(error instanceof Error)) return undefined;
  const trouble = databaseTrouble(error);
  if (trouble) return trouble;
  if ('type' in error && error.type === 'entity.too.large')
    return new Refusal('too-large', 'The request is larger than 25 MB.');
  // the body's parser and the router name what is wrong with a request by a status: no JSON, an unknown charset, a bad escape
  if ('status' in error && typeof error.status === 'number' && error.status >= 400 && error.status < 500)
    return error.status === 404
      ? new Refusal('file-not-found', 'There is no such file here.')
      : new Refusal('bad-request', `The request cannot be read: ${error.message}.`);
  // the parser of uploads throws plain errors
  if (/^(Multipart: |Unexpected end of form|Malformed |Request aborted|Unsupported content type)/.test(error.message))
    return new Refusal(
      'bad-request',
      `The upload cannot be read (${error.message}). Send one zip as "archive" in multipart/form-data.`,
    );
  return undefined;
}
