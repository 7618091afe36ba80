/** What one site may hold. */
export const limits = {
  files: 10_000,
  bytes: 200_000_000,
  textBytes: 20_000_000,
  /** Most bytes of a file that is left out and kept all the same. */
  keptBytes: 1_000_000,
  /** Of all such files together. */
  allKeptBytes: 10_000_000,
  /** Of an archive, folders and what is left out among them. */
  entries: 40_000,
} as const;
