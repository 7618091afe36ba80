import { addresses, type RouteName } from './addresses.ts';
import { Problem } from './api.ts';
import type { Route } from './route.ts';
import { routes } from './routes.ts';

/** Problems any request may get: not as described; a fault of ours; the server is being stopped. */
const always = [400, 500, 503];

/** The API as an OpenAPI 3.1 document. */
export function openApiDocument(version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, route] of Object.entries(routes) as [RouteName, Route][]) {
    const [method, address] = addresses[name];
    const path = address.replace(/[:*](\w+)/g, '{$1}');
    paths[path] = { ...paths[path], [method]: operationOf(name, address, route) };
  }
  return { openapi: '3.1.0', info: { title: 'Syndeton', version }, paths };
}

function operationOf(name: string, address: string, { summary, query, body, fields, reply, problems }: Route): object {
  const inPath = [...address.matchAll(/[:*](\w+)/g)].map(([, part]) => ({
    name: part,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const inQuery = Object.entries(query?.properties ?? {}).map(([part, schema]) => ({
    name: part,
    in: 'query',
    required: query!.required?.includes(part) ?? false,
    schema: schema,
  }));
  const upload = fields && {
    ...fields,
    required: ['archive', ...(fields.required ?? [])],
    properties: { archive: { type: 'string', format: 'binary' }, ...fields.properties },
  };
  const content = upload
    ? { 'multipart/form-data': { schema: upload } }
    : body
      ? { 'application/json': { schema: body } }
      : undefined;
  const refused = { description: 'refused', content: { 'application/problem+json': { schema: Problem } } };
  return {
    operationId: name,
    summary,
    parameters: [...inPath, ...inQuery],
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: {
      [reply.status]: replyOf(reply),
      ...Object.fromEntries([...always, ...problems].map((status) => [status, refused])),
    },
  };
}

function replyOf({ body, events }: Route['reply']): object {
  if (body === 'empty') return { description: 'done' };
  if (body === 'patch') return { description: 'a unified patch', content: { 'text/x-patch': {} } };
  if (body === 'report')
    return {
      description: 'a page to print, or rows',
      content: { 'text/html': {}, 'text/csv': {}, 'application/json': {} },
    };
  if (body === 'zip') return { description: 'a zip archive', content: { 'application/zip': {} } };
  if (events)
    return { description: 'events, the data of each as described', content: { 'text/event-stream': { schema: body } } };
  return { description: 'done', content: { 'application/json': { schema: body } } };
}
