import express, { Router, type Request, type RequestHandler, type Response } from 'express';
import {
  addresses,
  routes,
  type Follow,
  type Given,
  type Replied,
  type Route,
  type RouteName,
  type Routes,
} from '@syndeton/contract';
import { asPerson, type Person } from '../people/whoAsks.ts';
import { sendEvents } from './sendEvents.ts';
import { clientSignal } from './clientSignal.ts';
import { sendPacked } from './sendPacked.ts';
import { archiveOf, uploadArchive, type UploadedArchive } from './uploadArchive.ts';
import { checkTexts, validBody, validQuery } from './validate.ts';

/** What a handler may use beside what the request says. */
export interface Around {
  /** The zip of an upload; refused when there is none. */
  readonly archive: () => UploadedArchive;
  /** Aborted when the one who asked goes away. */
  readonly signal: AbortSignal;
  readonly response: Response;
}

/** A handler for each of some routes. */
export type Handlers<Names extends RouteName> = {
  readonly [Name in Names]: (
    given: Given<Name, Routes[Name]>,
    around: Around,
  ) => Promise<Replied<Routes[Name]>> | Replied<Routes[Name]>;
};

type AnyHandler = (given: Given<RouteName, Route>, around: Around) => unknown;

/** What stands before the handlers. */
export interface Gate {
  /** Who asks for a route; refused where that person may not. */
  readonly admit: (request: Request, name: RouteName) => Promise<Person | undefined>;
  /** What counts how often some of them are asked for, once their bodies are read. */
  readonly limits: Partial<Record<RouteName, readonly RequestHandler[]>>;
}

const readBody = express.json({ limit: '25mb' });

/**
 * All routes of the contract: what comes in is held against it, and what a handler gives is sent as it says. Who may not ask is refused
 * before anything of the request is read.
 */
export function makeRouter(handlers: Handlers<RouteName>, { admit, limits }: Gate): Router {
  const router = Router();
  for (const [name, handler] of Object.entries(handlers) as [RouteName, AnyHandler][]) {
    const [method, path] = addresses[name];
    const route: Route = routes[name];
    const admitted: RequestHandler = async (request, response, next) => {
      response.locals['person'] = await admit(request, name);
      next();
    };
    const body = route.fields ? [uploadArchive()] : route.body ? [readBody] : [];
    router[method](path, admitted, ...body, ...(limits[name] ?? []), async (request, response) => {
      const { archive, letGo } = archiveOf(request);
      try {
        const given = givenOf(route, request);
        const person = response.locals['person'] as Person | undefined;
        await asPerson(person, async () => {
          const replied = await handler(given, { archive, signal: clientSignal(response), response });
          send(route, replied, request, response, () => admit(request, name));
        });
      } finally {
        await letGo();
      }
    });
  }
  return router;
}

function givenOf({ query, body, fields }: Route, request: Request): Given<RouteName, Route> {
  const params = Object.fromEntries(
    Object.entries(request.params).map(([part, value]) => [part, Array.isArray(value) ? value.join('/') : value]),
  );
  checkTexts(params, 'The address');
  return {
    params,
    query: query && validQuery(query, request.query),
    body: body && validBody(body, request.body),
    fields: fields && validQuery(fields, (request.body ?? {}) as object),
  } as Given<RouteName, Route>;
}

function send(
  { reply }: Route,
  replied: unknown,
  request: Request,
  response: Response,
  mayStill: () => Promise<unknown>,
): void {
  // an archive is written by its handler, while it is made
  if (reply.body === 'zip' || reply.body === 'patch' || reply.body === 'report') return;
  if (reply.events) {
    sendEvents(response, replied as Follow<unknown>, mayStill);
    return;
  }
  response.status(reply.status);
  if (reply.body === 'empty') response.end();
  else if (reply.packed) sendPacked(request, response, replied as Uint8Array);
  else response.json(replied);
}
