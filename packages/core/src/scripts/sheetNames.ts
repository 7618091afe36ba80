import { fileNameOf } from '../source/sitePath.ts';
import { wordsEnding } from '../source/wordsEnding.ts';
import { decodePath } from '../values/urls.ts';

/** What of a text could be the name of a sheet, or the end of one: `css/dark.css?v=2` says `css/dark.css`. */
export const sheetNamesIn = (text: string): readonly string[] =>
  wordsEnding(text, /[.]css(?![\w(-])/gi, /[^\s"'`<>()=,;]/);

/** Whether it is the name of this sheet, from wherever it is counted. */
export const mayName = (said: string, path: string): boolean =>
  fileNameOf(decodePath(said)).toLowerCase() === fileNameOf(path).toLowerCase();

/** Whether it is how the name of this sheet ends, where a script puts names together: `.css`, `-dark.css`. */
export function mayEndName(said: string, path: string): boolean {
  const end = fileNameOf(decodePath(said)).toLowerCase();
  return /^[._-]/.test(end) && fileNameOf(path).toLowerCase().endsWith(end);
}
