import type { RequestHandler } from 'express';
import { Refusal } from './refusal.ts';

/**
 * Refuses requests that a page of another site could have made: a Host that is not ours (DNS rebinding), and on requests that
 * change something an Origin that is not our own, or what browsers say of where a request comes from (Fetch Metadata).
 */
export function guardOrigin(allowedHosts: ReadonlySet<string>): RequestHandler {
  return (request, _response, next) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase();
    if (!allowedHosts.has(host))
      throw new Refusal('host-refused', `The host ${host} is not this server. Open it by the address it printed.`);
    const { origin } = request.headers;
    const changes = request.method !== 'GET' && request.method !== 'HEAD';
    if (changes && origin !== undefined && hostOf(origin) !== request.headers.host)
      throw new Refusal('host-refused', `A page of ${origin} may not change anything here.`);
    const from = request.headers['sec-fetch-site'];
    if (changes && from !== undefined && from !== 'same-origin' && from !== 'none')
      throw new Refusal('host-refused', 'A page of another site may not change anything here.');
    next();
  };
}

/** Names as people write them in a setting: in any case, with spaces around them. */
export const hostNames = (setting: string): readonly string[] =>
  setting.split(',').flatMap((name) => (name.trim() === '' ? [] : [name.trim().toLowerCase()]));

function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
}
