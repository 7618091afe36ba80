/**
 * A 16-digit fingerprint of a byte string, to tell whether a file is the one an edit was measured on.
 * Two FNV-1a runs of 32 bits with different seeds; not for security (the server stores SHA-256 beside it).
 */
export function contentHash(bytes: Uint8Array): string {
  let a = 0x811c9dc5;
  let b = 0x01000193 ^ bytes.length;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!;
    a = Math.imul(a ^ byte, 0x01000193);
    b = Math.imul(b ^ byte ^ (i & 0xff), 0x5bd1e995);
    b ^= b >>> 15;
  }
  return hex(a) + hex(b);
}

const hex = (n: number): string => (n >>> 0).toString(16).padStart(8, '0');
