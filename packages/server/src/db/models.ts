import type { SiteDecisions } from '@syndeton/core';
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { OperationBody, SiteFiguresReply, SiteRightName, SurveyReply } from '@syndeton/contract';

export class SiteModel extends Model<InferAttributes<SiteModel>, InferCreationAttributes<SiteModel>> {
  declare id: CreationOptional<string>;
  declare name: string;
  declare prefix: string;
  declare head: number;
  declare leftOut: { path: string; reason: string; hash?: string }[];
  /** Why overrides are kept, by the override's id. */
  declare notes: CreationOptional<Record<string, string>>;
  /** Grows with every change of the draft, its end included. */
  declare draftVersion: CreationOptional<number>;
  declare removedAt: CreationOptional<Date | null>;
  declare createdAt: CreationOptional<Date>;
}

export class RevisionModel extends Model<InferAttributes<RevisionModel>, InferCreationAttributes<RevisionModel>> {
  declare siteId: string;
  declare number: number;
  declare parent: number | null;
  declare message: string;
  /** Site path → SHA-256 of its bytes, in hex. */
  declare manifest: Record<string, string>;
  declare figures: SiteFiguresReply;
  declare changedFiles: number;
  declare createdAt: CreationOptional<Date>;
  declare decisions: CreationOptional<SiteDecisions>;
  declare steps: CreationOptional<{ operation: OperationBody; sentence: string }[]>;
  declare note: CreationOptional<string>;
  declare by: CreationOptional<string>;
}

/** What a draft held, by version: the site's is the one that counts, the last ones before it are kept. A row never changes. */
export class DraftVersionModel extends Model<
  InferAttributes<DraftVersionModel>,
  InferCreationAttributes<DraftVersionModel>
> {
  declare siteId: string;
  declare version: number;
  declare base: number;
  declare operations: OperationBody[];
  declare updatedAt: CreationOptional<Date>;
}

/** Lists that came too late to become the draft: what redoing them on top goes on from. */
export class DraftLateModel extends Model<InferAttributes<DraftLateModel>, InferCreationAttributes<DraftLateModel>> {
  declare id: CreationOptional<string>;
  declare siteId: string;
  declare madeOn: number;
  declare operations: OperationBody[];
  declare updatedAt: CreationOptional<Date>;
}

export class PersonModel extends Model<InferAttributes<PersonModel>, InferCreationAttributes<PersonModel>> {
  declare id: CreationOptional<string>;
  declare name: string;
  /** How it was made from the password, with its salt: never the password. */
  declare password: string;
  declare isAdministrator: boolean;
  declare createdAt: CreationOptional<Date>;
}

/** What stands for a person: a browser that is signed in, until it ends, or a key for the API. Only a hash of it is kept. */
export class PassModel extends Model<InferAttributes<PassModel>, InferCreationAttributes<PassModel>> {
  declare id: CreationOptional<string>;
  declare hash: string;
  declare personId: string;
  /** Of a key for the API; null for a browser. */
  declare label: string | null;
  declare endsAt: Date | null;
  declare createdAt: CreationOptional<Date>;
}

/** What somebody may do with a site. */
export class SiteRightModel extends Model<InferAttributes<SiteRightModel>, InferCreationAttributes<SiteRightModel>> {
  declare siteId: string;
  declare personId: string;
  declare right: SiteRightName;
}

export class InventoryModel extends Model<InferAttributes<InventoryModel>, InferCreationAttributes<InventoryModel>> {
  declare siteId: string;
  declare number: number;
  declare version: number;
  declare survey: Buffer;
  declare families: Buffer;
  declare sheets: SurveyReply['sheets'];
}

export function defineModels(sequelize: Sequelize): void {
  // made anew for each column: Sequelize writes into them
  const id = () => ({ type: DataTypes.UUID, primaryKey: true });
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const integer = () => ({ type: DataTypes.INTEGER, allowNull: false });
  const json = () => ({ type: DataTypes.JSONB, allowNull: false });
  SiteModel.init(
    {
      id: { ...id(), defaultValue: DataTypes.UUIDV4 },
      name: text(),
      prefix: text(),
      head: integer(),
      leftOut: json(),
      notes: { ...json(), defaultValue: {} },
      draftVersion: { ...integer(), defaultValue: 0 },
      removedAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'site', underscored: true, updatedAt: false },
  );
  RevisionModel.init(
    {
      siteId: id(),
      number: { ...integer(), primaryKey: true },
      parent: { type: DataTypes.INTEGER, allowNull: true },
      message: text(),
      manifest: json(),
      figures: json(),
      changedFiles: integer(),
      decisions: { ...json(), defaultValue: { absent: [], leftOut: [] } },
      steps: { ...json(), defaultValue: [] },
      note: { ...text(), defaultValue: '' },
      by: { ...text(), defaultValue: '' },
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'revision', underscored: true, updatedAt: false },
  );
  DraftVersionModel.init(
    {
      siteId: id(),
      version: { ...integer(), primaryKey: true },
      base: integer(),
      operations: json(),
      updatedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'draft_version', underscored: true, createdAt: false },
  );
  DraftLateModel.init(
    {
      id: { ...id(), defaultValue: DataTypes.UUIDV4 },
      siteId: { type: DataTypes.UUID, allowNull: false },
      madeOn: integer(),
      operations: json(),
      updatedAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'draft_late', underscored: true, createdAt: false },
  );
  PersonModel.init(
    {
      id: { ...id(), defaultValue: DataTypes.UUIDV4 },
      name: text(),
      password: text(),
      isAdministrator: { type: DataTypes.BOOLEAN, allowNull: false },
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'person', underscored: true, updatedAt: false },
  );
  PassModel.init(
    {
      id: { ...id(), defaultValue: DataTypes.UUIDV4 },
      hash: text(),
      personId: { type: DataTypes.UUID, allowNull: false },
      label: { type: DataTypes.TEXT, allowNull: true },
      endsAt: { type: DataTypes.DATE, allowNull: true },
      createdAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'pass', underscored: true, updatedAt: false },
  );
  SiteRightModel.init(
    { siteId: id(), personId: id(), right: text() },
    { sequelize, tableName: 'site_right', underscored: true, timestamps: false },
  );
  const blob = () => ({ type: DataTypes.BLOB, allowNull: false });
  InventoryModel.init(
    {
      siteId: id(),
      number: { ...integer(), primaryKey: true },
      version: integer(),
      survey: blob(),
      families: blob(),
      sheets: json(),
    },
    { sequelize, tableName: 'inventory', underscored: true, timestamps: false },
  );
}
