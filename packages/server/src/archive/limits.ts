/** What one site may hold. */
export const limits = {
  files: 10_000,
  bytes: 200_000_000,
  textBytes: 20_000_000,
} as const;
