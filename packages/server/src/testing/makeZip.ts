import yazl from 'yazl';

/** A zip as bytes. `mode` 0o120777 makes a link. */
export async function makeZip(
  files: readonly {
    readonly path: string;
    readonly content: string | Buffer;
    readonly mode?: number;
    readonly compress?: boolean;
  }[],
): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const { path, content, mode, compress = true } of files)
    zip.addBuffer(Buffer.from(content), path, mode === undefined ? { compress } : { mode, compress });
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** The same bytes with a name replaced by one of equal length, which no honest writer would write. */
export const withName = (zip: Buffer, name: string, instead: string): Buffer =>
  Buffer.from(zip.toString('latin1').replaceAll(name, instead), 'latin1');
