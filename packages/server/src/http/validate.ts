import { Ajv2020, type ErrorObject, type ValidateFunction } from 'ajv/dist/2020.js';
import addFormatsModule from 'ajv-formats';
import { Refusal } from './refusal.ts';

// ajv-formats is CommonJS: under NodeNext its default import is the module object
const addFormats = addFormatsModule.default;

/** Compiles each schema once. */
function makeValidator(options: ConstructorParameters<typeof Ajv2020>[0]): (schema: object, value: unknown) => unknown {
  const ajv = new Ajv2020({ allErrors: false, strict: false, ...options });
  addFormats(ajv);
  const compiled = new Map<object, ValidateFunction>();
  return (schema, value) => {
    let validate = compiled.get(schema);
    if (!validate) compiled.set(schema, (validate = ajv.compile(schema)));
    if (!validate(value)) throw new Refusal('bad-request', describeErrors(validate.errors ?? []));
    checkTexts(value, 'The request');
    return value;
  };
}

/** The body, if it is as the schema says; else a refusal that names the place, what is wrong and what is allowed. */
export const validBody = makeValidator({});

const coercing = makeValidator({ coerceTypes: 'array' });

/** A query, or the fields of a form: all texts on their way, numbers and lists by the schema. */
export const validQuery = (schema: object, query: object): unknown => coercing(schema, { ...query });

function describeErrors(errors: readonly ErrorObject[]): string {
  const error = errors.find((e) => e.keyword !== 'anyOf') ?? errors[0];
  if (!error) return 'The request is not as described in /api/openapi.json.';
  const where =
    error.instancePath === '' ? 'The request' : `The field ${error.instancePath.slice(1).replaceAll('/', '.')}`;
  const extra = 'additionalProperty' in error.params ? ` (${String(error.params['additionalProperty'])})` : '';
  const allowed = Array.isArray(error.params['allowedValues']) ? `: ${error.params['allowedValues'].join(', ')}` : '';
  return `${where} ${error.message ?? 'is not as described'}${extra}${allowed}. See /api/openapi.json for what is allowed.`;
}

/** Texts hold what no file and no database can keep: a NUL, or half of a surrogate pair. Refused with the place. */
export function checkTexts(value: unknown, place: string): void {
  if (typeof value === 'string') {
    if (value.includes('\0') || /\p{Surrogate}/u.test(value))
      throw new Refusal(
        'bad-request',
        `${place} holds ${value.includes('\0') ? 'a NUL character' : 'half of a surrogate pair'}, which cannot be kept. Take it out.`,
      );
  } else if (Array.isArray(value)) value.forEach((one, i) => checkTexts(one, `${place}, place ${i + 1}`));
  else if (typeof value === 'object' && value !== null)
    for (const [part, one] of Object.entries(value)) {
      checkTexts(part, place);
      checkTexts(one, `${place}, field ${part}`);
    }
}
