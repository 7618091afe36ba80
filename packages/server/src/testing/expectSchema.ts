import { expect } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';

const ajv = new Ajv2020({ strict: false });
(addFormats as unknown as { default: (a: Ajv2020) => void }).default(ajv);

/** A reply is what the contract says. */
export function expectSchema(schema: object, body: unknown): void {
  ajv.validate(schema, body);
  expect(ajv.errors).toBeNull();
}
