import { expect, test } from '@jest/globals';
import { contentHash } from './contentHash.ts';

// NIST, "Secure Hash Standard: SHA-256 example" (the messages "abc" and none), first half
test.each([
  ['abc', 'ba7816bf8f01cfea414140de5dae2223'],
  ['', 'e3b0c44298fc1c149afbf4c8996fb924'],
])('%j', (text, hash) => {
  expect(contentHash(new TextEncoder().encode(text))).toBe(hash);
});
