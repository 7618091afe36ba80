import { zipSync } from 'fflate';

/** A site as it is uploaded: its files in a zip, uncompressed, and the fields beside it. */
export function siteForm(
  files: Readonly<Record<string, Uint8Array>>,
  fields: Readonly<Record<string, string>>,
): FormData {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  body.append('archive', new Blob([zipSync({ ...files }, { level: 0 })]), 'site.zip');
  return body;
}
