export interface LeftOutFile {
  readonly path: string;
  readonly reason: string;
  /** Small ones are kept, so that they can be taken in after all. */
  readonly content?: Buffer;
}

const mostNamed = 1000;

/** What is left out of an archive: folders that are no part of a site as one, other files by name, at the end by number. */
export class LeftOut {
  readonly list: LeftOutFile[] = [];
  private readonly folders = new Map<string, { readonly at: number; files: number }>();
  private unnamed = 0;

  add(path: string, reason: string, content?: Buffer): void {
    const folder = noPartOfASite.exec(path)?.[0];
    if (folder !== undefined) this.inFolder(folder);
    else if (this.list.length < mostNamed) this.list.push({ path, reason, ...(content ? { content } : {}) });
    else this.list[mostNamed] = { path: '…', reason: `and ${++this.unnamed} more` };
  }

  private inFolder(folder: string): void {
    const known = this.folders.get(folder);
    const at = known?.at ?? this.list.length;
    if (!known && at >= mostNamed) return;
    const files = (known?.files ?? 0) + 1;
    this.folders.set(folder, { at, files });
    this.list[at] = { path: folder, reason: `it is not part of a site (${files === 1 ? 'a file' : `${files} files`})` };
  }
}

/** Folders of version control and of one system's archives, with what stands before them. */
export const noPartOfASite = /^(?:.*?\/)?(?:__MACOSX|\.git|\.svn|\.hg)\//;
