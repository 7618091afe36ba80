import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { encodeText } from './textCoding.ts';

/**
 * A fingerprint of a byte string in 32 hex digits, by which files are told to be the same: that an edit was measured on one, that a
 * proof need not look at it again. The first half of SHA-256 (FIPS 180-4), so that nobody makes two files that share it.
 */
export const contentHash = (bytes: Uint8Array): string => bytesToHex(sha256(bytes).subarray(0, 16));

/** The same of a text, as text where it has lone surrogates, which no bytes stand for. */
export const textHash = (text: string): string =>
  /\p{Surrogate}/u.test(text) ? text : contentHash(encodeText(text, 'utf-8')!);
