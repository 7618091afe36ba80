import { Type, type Static } from '@sinclair/typebox';

const Count = Type.Integer({ minimum: 0 });
const machine = {
  protocol: Type.Union([Type.Literal('sftp'), Type.Literal('ftps')]),
  host: Type.String({ minLength: 1, maxLength: 255, pattern: '^[A-Za-z0-9_.:-]+$' }),
  port: Type.Integer({ minimum: 1, maximum: 65_535 }),
};

/** Which machine is asked for its key. */
export const MachineBody = Type.Object(machine, { additionalProperties: false, $id: 'MachineBody' });

/** The fingerprint of its key or certificate, to be compared by its owner. */
export const MachineKey = Type.Object({ key: Type.String() }, { $id: 'MachineKey' });

/** Where the changed files go. The password is used for this one upload and kept nowhere. */
export const UploadBody = Type.Object(
  {
    ...machine,
    user: Type.String({ minLength: 1, maxLength: 255 }),
    password: Type.String({ maxLength: 1000 }),
    /** On the server; where the site begins. */
    folder: Type.String({ minLength: 1, maxLength: 1000 }),
    /** The machine has to have this one. */
    key: Type.String({ minLength: 1, maxLength: 200 }),
    since: Type.Integer({ minimum: 1 }),
  },
  { additionalProperties: false, $id: 'UploadBody' },
);

export const Upload = Type.Object(
  {
    status: Type.Union([Type.Literal('none'), Type.Literal('running'), Type.Literal('done'), Type.Literal('stopped')]),
    /** Files that are on the server and were compared. */
    there: Type.Array(Type.String()),
    total: Count,
    /** Where it stopped, and why. */
    path: Type.Optional(Type.String()),
    why: Type.Optional(Type.String()),
    /** What may be deleted there now. */
    mayGo: Type.Array(Type.String()),
  },
  { $id: 'Upload' },
);

export type MachineRequest = Static<typeof MachineBody>;
export type MachineKeyReply = Static<typeof MachineKey>;
export type UploadRequest = Static<typeof UploadBody>;
export type UploadReply = Static<typeof Upload>;
