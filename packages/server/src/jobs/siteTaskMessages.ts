import { deserialize, serialize } from 'node:v8';
import type { Progress } from '../analysis/siteThreads.ts';
import type { RefusalCode } from '../http/refusal.ts';

/** What came of a task that another process did. */
export type TaskAnswer =
  | { readonly kind: 'done'; readonly value: unknown }
  | { readonly kind: 'refused'; readonly code: RefusalCode; readonly message: string }
  | { readonly kind: 'error'; readonly message: string };

/** What who does a task tells who asked for it. An answer itself may be large: it stands in the database. */
export type TaskNews = { readonly id: string } & (
  | { readonly kind: 'begun' }
  | { readonly kind: 'progress'; readonly progress: Progress }
  | { readonly kind: 'answered' }
);

/** Where a process hears of what it asked. */
export const newsFor = (asker: number): string => `site_task_news_${asker}`;

/** Where it is told that nobody wants a task any more. */
export const unwanted = 'site_task_unwanted';

/** Where processes that do tasks say whose pages they hold. */
export const holding = 'site_held';

/** Whatever crosses threads crosses processes as well: the same version of Node writes and reads it. */
export const packed = (value: unknown): Uint8Array => serialize(value);
export const unpacked = (bytes: Uint8Array): unknown => deserialize(bytes);
