import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { SiteDecisions } from '@syndeton/core';
import { InventoryModel, RevisionModel } from '../db/models.ts';
import { whoAsks } from '../people/whoAsks.ts';
import type { Blobs } from './blobs.ts';
import type { NewRevision, VersionedInventory } from './revisionStore.ts';

/** Writes a revision with the bytes it names and what was found in it, inside the caller's transaction. */
export async function writeRevision(
  sequelize: Sequelize,
  bytes: Blobs,
  siteId: string,
  number: number,
  revision: NewRevision,
  transaction: Transaction,
): Promise<void> {
  const { message, manifest, figures, changedFiles, blobs, inventory, steps = [], note = '' } = revision;
  await bytes.write(siteId, blobs, transaction);
  await checkUses(sequelize, siteId, Object.values(manifest), transaction);
  const parent = number === 1 ? null : number - 1;
  const { decisions = { like: number - 1 } } = revision;
  const decided = 'like' in decisions ? await decisionsAt(siteId, decisions.like, transaction) : decisions;
  await RevisionModel.create(
    {
      siteId,
      number,
      parent,
      message,
      manifest: { ...manifest },
      figures,
      changedFiles,
      decisions: decided,
      steps: [...steps],
      note,
      by: whoAsks()?.name ?? '',
    },
    { transaction },
  );
  if ('like' in inventory) await copyInventory(sequelize, siteId, inventory.like, number, transaction);
  else await InventoryModel.upsert(inventoryRow(siteId, number, inventory), { transaction });
}

/** Nothing where there is no such revision. */
export async function decisionsAt(siteId: string, number: number, transaction?: Transaction): Promise<SiteDecisions> {
  const row = await RevisionModel.findOne({
    where: { siteId, number },
    attributes: ['decisions'],
    transaction: transaction ?? null,
  });
  return row?.decisions ?? { absent: [], leftOut: [] };
}

export const inventoryRow = (
  siteId: string,
  number: number,
  { version, survey, families, sheets }: VersionedInventory,
): { siteId: string; number: number; version: number; survey: Buffer; families: Buffer; sheets: typeof sheets } => ({
  siteId,
  number,
  version,
  survey: bufferOf(survey),
  families: bufferOf(families),
  sheets: [...sheets],
});

const bufferOf = (body: Uint8Array): Buffer => Buffer.from(body.buffer, body.byteOffset, body.byteLength);

async function checkUses(
  sequelize: Sequelize,
  siteId: string,
  hashes: readonly string[],
  transaction: Transaction,
): Promise<void> {
  const missing = await sequelize.query<{ hash: string }>(
    `SELECT hash FROM unnest($2::text[]) AS hash
     WHERE NOT EXISTS (SELECT 1 FROM blob_use WHERE site_id = $1 AND blob_use.hash = hash.hash) LIMIT 1`,
    { bind: [siteId, [...new Set(hashes)]], transaction, type: QueryTypes.SELECT },
  );
  if (missing.length > 0) throw new Error(`the revision names bytes that are not there: ${missing[0]!.hash}`);
}

async function copyInventory(
  sequelize: Sequelize,
  siteId: string,
  from: number,
  to: number,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    `INSERT INTO inventory (site_id, number, version, survey, families, sheets)
     SELECT site_id, $3, version, survey, families, sheets FROM inventory WHERE site_id = $1 AND number = $2`,
    { bind: [siteId, from, to], transaction },
  );
}
