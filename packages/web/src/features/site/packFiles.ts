import { zipSync, type Zippable } from 'fflate';

export interface DroppedFile {
  readonly path: string;
  readonly file: File;
}

/** The files of a drop, folders walked through, each with its path in the drop. */
export async function filesOfDrop(transfer: DataTransfer): Promise<readonly DroppedFile[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...transfer.files].map((file) => ({ path: file.name, file }));
  const out: DroppedFile[] = [];
  for (const entry of entries) await walk(entry, out);
  return out;
}

async function walk(entry: FileSystemEntry, out: DroppedFile[]): Promise<void> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    out.push({ path: entry.fullPath.replace(/^\//, ''), file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    const batch = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (batch.length === 0) return;
    for (const child of batch) await walk(child, out);
  }
}

/** The files of a chooser: `webkitRelativePath` when a folder was chosen. */
export const filesOfChooser = (files: FileList): readonly DroppedFile[] =>
  [...files].map((file) => ({ path: file.webkitRelativePath || file.name, file }));

/** One zip of what was brought: the zip itself when that is all there is, else the files stored as they are. */
export async function packFiles(
  files: readonly DroppedFile[],
): Promise<{ readonly archive: Blob; readonly name: string }> {
  const only = files.length === 1 ? files[0]! : undefined;
  if (only && /\.zip$/i.test(only.path)) return { archive: only.file, name: only.file.name.replace(/\.zip$/i, '') };
  const content: Zippable = {};
  for (const { path, file } of files) content[path] = [new Uint8Array(await file.arrayBuffer()), { level: 0 }];
  const top = files[0]?.path.split('/')[0] ?? '';
  const name = files[0]?.path.includes('/') ? top : top.replace(/\.[^.]*$/, '');
  return {
    archive: new Blob([zipSync(content)], { type: 'application/zip' }),
    name: name || 'Unnamed site',
  };
}
