import { Ajv2020, type ErrorObject, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormatsModule from 'ajv-formats';
import { Refusal } from './refusal.ts';

// ajv-formats is CommonJS: under NodeNext its default import is the module object
const addFormats = addFormatsModule.default;
const ajv = new Ajv2020({ allErrors: false, strict: false });
addFormats(ajv);

const compiled = new Map<object, ValidateFunction>();

/** The body, if it is as the schema says; else a refusal that names the place, what is wrong and what is allowed. */
export function validBody<Body>(schema: object, body: unknown): Body {
  let validate = compiled.get(schema);
  if (!validate) compiled.set(schema, (validate = ajv.compile(schema)));
  if (validate(body)) return body as Body;
  throw new Refusal('bad-request', describeErrors(validate.errors ?? []));
}

function describeErrors(errors: readonly ErrorObject[]): string {
  const error = errors.find((e) => e.keyword !== 'anyOf') ?? errors[0];
  if (!error) return 'The request is not as described in /api/openapi.json.';
  const where =
    error.instancePath === '' ? 'The request' : `The field ${error.instancePath.slice(1).replaceAll('/', '.')}`;
  const extra = 'additionalProperty' in error.params ? ` (${String(error.params['additionalProperty'])})` : '';
  return `${where} ${error.message ?? 'is not as described'}${extra}. See /api/openapi.json for what is allowed.`;
}
