import { pageOf } from './siteOf.ts';

export type Files = Readonly<Record<string, string | Uint8Array>>;

/** What a case shows; files that have the finding; the sentence it gives; files that nearly have it. */
export type CheckCase = readonly [shows: string, has: Files, sentence: string, nearly: Files];

export const link = (href: string, more = ''): string => `<link rel="stylesheet" href="${href}"${more}>`;
export const style = (rules: string): string => `<style>${rules}</style>`;

/** Pages a.html, b.html, … with one head and body. */
export const pages = (n: number, head: string, body = '<p>x</p>'): Files =>
  Object.fromEntries(Array.from({ length: n }, (_, i) => [`${'abcdefghijklmnop'[i]!}.html`, pageOf(head, body)]));
