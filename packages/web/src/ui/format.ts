/** Bytes as people read them: `1.2 kB`, `7.9 MB`. */
export const kB = (bytes: number): string =>
  bytes < 1e6 ? `${(bytes / 1000).toFixed(1)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

export const count = (n: number, word: string, many = `${word}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? word : many}`;

/** A page's name without its common extension. */
export const pageName = (path: string): string => path.replace(/\.html$/, '');

export function savedWhen(iso: string): string {
  const then = new Date(iso);
  const today = new Date();
  const time = then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  return then.toDateString() === today.toDateString()
    ? `today at ${time}`
    : `on ${then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}`;
}

/** A few names and how many more: `index, fares and 14 more`. */
export function someNames(paths: readonly string[], most = 3): string {
  const names = paths.map(pageName);
  if (names.length <= most) return names.join(', ');
  return `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
}

const list = new Intl.ListFormat('en-GB', { type: 'conjunction' });
/** `1 sheet, 2 pages and 3 other files`. */
export const inWords = (parts: readonly string[]): string => list.format(parts);
