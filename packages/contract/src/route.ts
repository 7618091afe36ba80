import type { Static, TObject, TSchema } from '@sinclair/typebox';
import type { ParamsOf, RouteName } from './addresses.ts';

/** What one request takes and gives, beside its address. */
export interface Route {
  readonly summary: string;
  readonly query?: TObject;
  readonly body?: TSchema;
  /** A zip as `archive` in multipart/form-data, with these fields beside it. */
  readonly fields?: TObject;
  /** The one reply that is no problem. `zip`, `patch`, `report` and `packed` (gzipped JSON, made before) are written by the handler itself. */
  readonly reply: {
    readonly status: 200 | 201 | 202 | 204;
    readonly body: TSchema | 'zip' | 'patch' | 'report' | 'empty';
    readonly packed?: true;
    /** Server-Sent Events, each of which holds such a body. HTML Standard, "Server-sent events". */
    readonly events?: true;
  };
  /** Statuses of problems, beside those every request may get. */
  readonly problems: readonly number[];
}

type StaticOr<Schema, Else> = Schema extends TSchema ? Static<Schema> : Else;

/** What a handler is given. */
export interface Given<Name extends RouteName, One extends Route> {
  readonly params: ParamsOf<Name>;
  readonly query: StaticOr<One['query'], undefined>;
  readonly body: StaticOr<One['body'], undefined>;
  readonly fields: StaticOr<One['fields'], undefined>;
}

/** Tells of each event until the one who follows is gone: then the function that came back is called. `end` ends the stream. */
export type Follow<Reply> = (tell: (reply: Reply) => void, end: () => void) => () => void;

/** What a handler gives: packed replies as their bytes, archives as nothing since they are written while they are made. */
export type Replied<One extends Route> = One['reply'] extends { readonly packed: true }
  ? Uint8Array
  : One['reply'] extends { readonly events: true }
    ? Follow<StaticOr<One['reply']['body'], never>>
    : StaticOr<One['reply']['body'], void>;
