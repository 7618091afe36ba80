/** A folder on another machine, over whatever protocol. Paths count from it, and use `/`. */
export interface Remote {
  /** The bytes of a file; undefined where there is none. */
  read(path: string): Promise<Buffer | undefined>;
  /** Size in bytes; undefined where there is no such file. */
  size(path: string): Promise<number | undefined>;
  /** The whole file at once: under another name first, then under its own. Folders are made. */
  write(path: string, bytes: Buffer): Promise<void>;
  close(): void;
}

/** Where to, and as whom. The password is used and forgotten. */
export interface RemoteAddress {
  readonly protocol: 'sftp' | 'ftps';
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly folder: string;
}

/** The other machine cannot be reached, or is not the one it was said to be. In words for a person. */
export class RemoteProblem extends Error {}

/** The same folder path with one slash at its end. */
export const asFolder = (folder: string): string => `${folder.replace(/\/+$/, '')}/`;

/** The folders a path stands in, outermost first. */
export const foldersOf = (path: string): readonly string[] =>
  [...path.matchAll(/\//g)].map(({ index }) => path.slice(0, index)).filter((folder) => folder !== '');
