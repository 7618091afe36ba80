import { literal, QueryTypes, type Sequelize } from 'sequelize';
import { BlobModel, InventoryModel, RevisionModel, SiteModel } from '../db/models.ts';
import { setDraft } from './sequelizeDraftStore.ts';
import type { RevisionRecord, RevisionStore } from './revisionStore.ts';
import { decisionsAt, inventoryRow, writeRevision } from './sequelizeNewRevision.ts';

const atOnce = 500;

export function makeSequelizeRevisionStore(sequelize: Sequelize): RevisionStore {
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
      const rows = await sequelize.query<{ bytes: Buffer }>(
        `SELECT bytes FROM revision JOIN blob ON hash = manifest->>$3 WHERE site_id = $1 AND number = $2`,
        { bind: [siteId, number, path], type: QueryTypes.SELECT },
      );
      return rows[0]?.bytes;
    },
    async readBlobs(hashes) {
      const out = new Map<string, Buffer>();
      for (const some of inParts(hashes))
        for (const { hash, bytes } of await BlobModel.findAll({ where: { hash: some }, raw: true }))
          out.set(hash, bytes);
      return out;
    },
    async blobSizes(hashes) {
      const rows = await BlobModel.findAll({
        where: { hash: [...new Set(hashes)] },
        attributes: ['hash', 'size'],
        raw: true,
      });
      return new Map(rows.map(({ hash, size }) => [hash, size]));
    },
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
        await writeRevision(sequelize, siteId, number, revision, transaction);
        site.set({ head: number });
        if (leftOut) site.set({ leftOut: leftOut.map((one) => ({ ...one })) });
        await setDraft(site, [], transaction);
        return { kind: 'done', number };
      });
    },
  };
}

function* inParts(hashes: readonly string[]): Generator<string[]> {
  const wanted = [...new Set(hashes)];
  for (let i = 0; i < wanted.length; i += atOnce) yield wanted.slice(i, i + atOnce);
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
