import { literal, QueryTypes, type Sequelize } from 'sequelize';
import { InventoryModel, RevisionModel, SiteModel } from '../db/models.ts';
import type { Blobs } from './blobs.ts';
import { setDraft } from './sequelizeDraftStore.ts';
import type { RevisionRecord, RevisionStore } from './revisionStore.ts';
import { decisionsAt, inventoryRow, writeRevision } from './sequelizeNewRevision.ts';

export function makeSequelizeRevisionStore(sequelize: Sequelize, blobs: Blobs): RevisionStore {
  return {
    async revisions(siteId) {
      const rows = await RevisionModel.findAll({
        where: { siteId },
        attributes: {
          exclude: ['manifest', 'decisions', 'steps'],
          include: [
            [literal(`(SELECT jsonb_agg(step->'sentence') FROM jsonb_array_elements(steps) AS step)`), 'sentences'],
          ],
        },
        order: [['number', 'DESC']],
      });
      return rows.map((row) => revisionRecord(row, row.get('sentences') as string[] | null));
    },
    async manifest(siteId, number) {
      const row = await RevisionModel.findOne({ where: { siteId, number }, attributes: ['manifest'] });
      return row?.manifest;
    },
    decisions: (siteId, number) => decisionsAt(siteId, number),
    async steps(siteId, number) {
      const row = await RevisionModel.findOne({ where: { siteId, number }, attributes: ['steps'] });
      return row?.steps ?? [];
    },
    async rename(siteId, number, words) {
      const [changed] = await RevisionModel.update({ ...words }, { where: { siteId, number } });
      return changed > 0;
    },
    async file(siteId, number, path) {
      const rows = await sequelize.query<{ hash: string | null }>(
        `SELECT manifest->>$3 AS hash FROM revision WHERE site_id = $1 AND number = $2`,
        { bind: [siteId, number, path], type: QueryTypes.SELECT },
      );
      const hash = rows[0]?.hash;
      return hash ? (await blobs.read([hash])).get(hash) : undefined;
    },
    readBlobs: (hashes) => blobs.read(hashes),
    blobSizes: (hashes) => blobs.sizes(hashes),
    async inventory(siteId, number, version) {
      const row = await InventoryModel.findOne({ where: { siteId, number, version } });
      return row ? { survey: row.survey, families: row.families, sheets: row.sheets } : undefined;
    },
    async putInventory(siteId, number, inventory) {
      await InventoryModel.upsert(inventoryRow(siteId, number, inventory));
    },
    async commit(siteId, { base, draft, revision, leftOut }) {
      return sequelize.transaction(async (transaction) => {
        const site = await SiteModel.findOne({
          where: { id: siteId, removedAt: null },
          transaction,
          lock: transaction.LOCK.UPDATE,
        });
        if (!site) return { kind: 'site-gone' };
        if (site.head !== base) return { kind: 'site-changed', newest: site.head };
        if (site.draftVersion !== draft) return { kind: 'draft-changed' };
        const number = base + 1;
        await writeRevision(sequelize, blobs, siteId, number, revision, transaction);
        site.set({ head: number });
        if (leftOut) site.set({ leftOut: leftOut.map((one) => ({ ...one })) });
        await setDraft(site, [], transaction);
        return { kind: 'done', number };
      });
    },
  };
}

export const revisionRecord = (row: RevisionModel, sentences: readonly string[] | null = null): RevisionRecord => ({
  number: row.number,
  message: row.message,
  savedAt: row.createdAt,
  figures: row.figures,
  changedFiles: row.changedFiles,
  sentences: sentences ?? [],
  note: row.note,
  by: row.by,
});
