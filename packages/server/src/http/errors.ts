import { randomUUID } from 'node:crypto';
import type { ErrorRequestHandler, Response } from 'express';
import multer from 'multer';
import type { Logger } from 'pino';
import type { ProblemReply } from '@syndeton/contract';
import { Stopped } from '../analysis/siteThreads.ts';
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
  return (error: unknown, _request, response, next) => {
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
    const id = randomUUID();
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
  if (error instanceof SyntaxError && 'body' in error)
    return new Refusal('bad-request', `The request is not JSON: ${error.message}.`);
  if (error instanceof Error && 'type' in error && error.type === 'entity.too.large')
    return new Refusal('archive-too-large', 'The request is larger than 25 MB.');
  return undefined;
}
