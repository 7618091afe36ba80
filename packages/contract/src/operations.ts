import { Type, type TSchema } from '@sinclair/typebox';
import { operationTypes, type Operation as CoreOperation } from '@syndeton/core';

const schemas: TSchema[] = operationTypes.map((type) => type.schema);

/** One operation, as core's files describe it. */
export const Operation = Type.Unsafe<CoreOperation>(Type.Union(schemas));

export const Operations = Type.Unsafe<readonly CoreOperation[]>(Type.Array(Operation, { maxItems: 500 }));

export type OperationBody = CoreOperation;
