import { Operations } from '@syndeton/contract';
import type { Operation } from '@syndeton/core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fs from 'node:fs/promises';
import { UsageProblem } from './siteFolder.ts';

/** The operations a plan file lists; undefined when there is no such file yet. */
export async function readPlanFile(path: string): Promise<readonly Operation[] | undefined> {
  let text: string;
  try {
    text = await fs.readFile(path, 'utf8');
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined;
    throw new UsageProblem(`The plan ${path} cannot be read: ${(error as Error).message}.`);
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new UsageProblem(`The plan ${path} is not JSON: ${(error as Error).message}.`);
  }
  const ajv = new Ajv2020({ strict: false });
  const validate = ajv.compile(Operations);
  if (validate(value)) return value as readonly Operation[];
  const first = validate.errors?.[0];
  const place = first?.instancePath ? `at ${first.instancePath}` : 'at its top';
  throw new UsageProblem(
    `The plan ${path} is not a list of operations: ${place} it ${first?.message ?? 'does not fit'}.`,
  );
}

export async function writePlanFile(path: string, operations: readonly Operation[]): Promise<void> {
  await fs.writeFile(path, `${JSON.stringify(operations, null, 2)}\n`);
}
