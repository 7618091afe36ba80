import yazl from 'yazl';

/** A zip of the files as a stream, names in UTF-8. */
export function writeArchive(files: Iterable<readonly [path: string, bytes: Uint8Array]>): NodeJS.ReadableStream {
  const zip = new yazl.ZipFile();
  for (const [path, bytes] of files)
    zip.addBuffer(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), path, {
      mtime: new Date('1980-01-02T00:00:00Z'),
    });
  zip.end();
  return zip.outputStream;
}
