import { createHash } from 'node:crypto';

/** The name that bytes are stored by: SHA-256 in hex. */
export const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
