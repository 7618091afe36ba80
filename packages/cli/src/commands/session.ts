import type { Site } from '@syndeton/core';

/** What a command has of the world. */
export interface Session {
  readonly print: (text: string) => void;
  /** The files of a folder, as the flags of the whole program say. */
  readonly site: (folder: string) => Promise<Site>;
  /** The exit code, 0 unless said. */
  readonly end: (code: number) => void;
}
