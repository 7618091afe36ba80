import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { SiteDecisions } from '@syndeton/core';
import { InventoryModel, RevisionModel } from '../db/models.ts';
import { whoAsks } from '../people/whoAsks.ts';
import type { NewRevision, VersionedInventory } from './revisionStore.ts';

/** Writes a revision with the bytes it names and what was found in it, inside the caller's transaction. */
export async function writeRevision(
  sequelize: Sequelize,
  siteId: string,
  number: number,
  revision: NewRevision,
  transaction: Transaction,
): Promise<void> {
  const { message, manifest, figures, changedFiles, blobs, inventory, steps = [], note = '' } = revision;
  await writeBlobs(sequelize, siteId, blobs, transaction);
  await checkUses(sequelize, siteId, Object.values(manifest), transaction);
  const parent = number === 1 ? null : number - 1;
  const { decisions = { like: number - 1 } } = revision;
  const decided = 'like' in decisions ? await decisionsAt(siteId, decisions.like, transaction) : decisions;
  await RevisionModel.create(
    { siteId, number, parent, message, manifest: { ...manifest }, figures, changedFiles, decisions: decided, steps: [...steps], note, by: whoAsks()?.name ?? '' }, // prettier-ignore
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

/**
 * Bytes that are there already are locked by "on conflict do update" until the transaction ends: a purge cannot take them away
 * before their use is written.
 */
async function writeBlobs(
  sequelize: Sequelize,
  siteId: string,
  blobs: ReadonlyMap<string, Buffer>,
  transaction: Transaction,
): Promise<void> {
  let batch: [string, Buffer][] = [];
  let size = 0;
  const flush = async (): Promise<void> => {
    if (batch.length === 0) return;
    const values = batch.map((_, i) => `($${3 * i + 1}, $${3 * i + 2}, $${3 * i + 3})`).join(', ');
    const bind = batch.flatMap(([hash, bytes]) => [hash, bytes.length, bytes]);
    const sql = `INSERT INTO blob (hash, size, bytes) VALUES ${values} ON CONFLICT (hash) DO UPDATE SET size = EXCLUDED.size`;
    await sequelize.query(sql, { bind, transaction, type: QueryTypes.INSERT });
    const uses = 'INSERT INTO blob_use (site_id, hash) SELECT $1, unnest($2::text[]) ON CONFLICT DO NOTHING';
    await sequelize.query(uses, { bind: [siteId, batch.map(([hash]) => hash)], transaction });
    batch = [];
    size = 0;
  };
  // one order for all writers, so that two saves never wait for each other
  for (const entry of [...blobs].sort((a, b) => (a[0] < b[0] ? -1 : 1))) {
    batch.push(entry);
    size += entry[1].length;
    if (batch.length >= 200 || size > 8_000_000) await flush();
  }
  await flush();
}

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
