import { makeSite, type Site } from '../source/site.ts';
import { encodeText } from '../source/textCoding.ts';

/** A site from texts in UTF-8, or bytes as given. */
export const siteOf = (files: Readonly<Record<string, string | Uint8Array>>): Site =>
  makeSite(
    Object.entries(files).map(
      ([path, content]) => [path, typeof content === 'string' ? encodeText(content, 'utf-8')! : content] as const,
    ),
  );

/** All texts by path. */
export const textsOf = ({ files }: Site): Readonly<Record<string, string | undefined>> =>
  Object.fromEntries([...files.values()].map(({ path, text }) => [path, text]));

export const textIn = (site: Site, path: string): string | undefined => site.files.get(path)?.text;

/** A page with this head and body. */
export const pageOf = (head: string, body: string): string =>
  `<!DOCTYPE html>\n<html><head><title>t</title>\n${head}\n</head><body>${body}</body></html>\n`;
