import { Op, QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { BlobModel, DraftModel, InventoryModel, RevisionModel, SiteModel } from '../../db/models.ts';
import type { NewRevision, RevisionRecord, SiteRecord, SiteStore } from './siteStore.ts';

export function makeSequelizeSiteStore(sequelize: Sequelize): SiteStore {
  return {
    async create(site, first) {
      return sequelize.transaction(async (transaction) => {
        const row = await SiteModel.create(
          { ...site, leftOut: site.leftOut.map((one) => ({ ...one })), head: 1 },
          { transaction },
        );
        await writeRevision(row.id, 1, null, first, transaction);
        return siteRecord(row);
      });
    },
    async list() {
      const sites = await SiteModel.findAll({ where: { removedAt: null }, order: [['createdAt', 'DESC']] });
      const drafts = new Map((await DraftModel.findAll()).map((draft) => [draft.siteId, draft.operations.length]));
      return Promise.all(
        sites.map(async (row) => {
          const newest = await RevisionModel.findOne({
            where: { siteId: row.id, number: row.head },
            attributes: { exclude: ['manifest'] },
          });
          return { site: siteRecord(row), newest: revisionRecord(newest!), draftOperations: drafts.get(row.id) ?? 0 };
        }),
      );
    },
    async find(id) {
      const row = await SiteModel.findOne({ where: { id, removedAt: null } });
      return row ? siteRecord(row) : undefined;
    },
    async rename(id, name) {
      await SiteModel.update({ name }, { where: { id } });
    },
    async setLeftOut(id, leftOut) {
      await SiteModel.update({ leftOut: leftOut.map((one) => ({ ...one })) }, { where: { id } });
    },
    async setNote(id, subject, note) {
      await sequelize.transaction(async (transaction) => {
        const row = await SiteModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (!row) return;
        const notes = { ...row.notes, [subject]: note };
        if (note === '') Reflect.deleteProperty(notes, subject);
        await row.update({ notes }, { transaction });
      });
    },
    async remove(id) {
      const [removed] = await SiteModel.update({ removedAt: new Date() }, { where: { id, removedAt: null } });
      return removed > 0;
    },
    async restore(id) {
      const [restored] = await SiteModel.update({ removedAt: null }, { where: { id, removedAt: { [Op.not]: null } } });
      return restored > 0;
    },
    async purge(removedBefore) {
      return sequelize.transaction(async (transaction) => {
        const removed = await SiteModel.destroy({ where: { removedAt: { [Op.lt]: removedBefore } }, transaction });
        const held = `SELECT value FROM revision, jsonb_each_text(manifest)
          UNION SELECT one->>'hash' FROM site, jsonb_array_elements(left_out) AS one WHERE one->>'hash' IS NOT NULL`;
        if (removed > 0) await sequelize.query(`DELETE FROM blob WHERE hash NOT IN (${held})`, { transaction });
        return removed;
      });
    },
    async inventory(id, number, version) {
      const row = await InventoryModel.findOne({ where: { siteId: id, number, version } });
      return row ? { survey: row.survey, families: row.families, sheets: row.sheets } : undefined;
    },
    async putInventory(id, number, version, { survey, families, sheets }) {
      const bytes = (body: Uint8Array): Buffer => Buffer.from(body.buffer, body.byteOffset, body.byteLength);
      await InventoryModel.upsert({
        siteId: id,
        number,
        version,
        survey: bytes(survey),
        families: bytes(families),
        sheets: [...sheets],
      });
    },
    async revisions(id) {
      const rows = await RevisionModel.findAll({
        where: { siteId: id },
        attributes: { exclude: ['manifest'] },
        order: [['number', 'DESC']],
      });
      return rows.map(revisionRecord);
    },
    async manifest(id, number) {
      const row = await RevisionModel.findOne({ where: { siteId: id, number }, attributes: ['manifest'] });
      return row?.manifest;
    },
    async readBlobs(hashes) {
      const out = new Map<string, Buffer>();
      const wanted = [...new Set(hashes)];
      for (let i = 0; i < wanted.length; i += 500) {
        const rows = await BlobModel.findAll({ where: { hash: wanted.slice(i, i + 500) }, raw: true });
        for (const { hash, bytes } of rows) out.set(hash, bytes);
      }
      return out;
    },
    async addRevision(id, base, revision) {
      return sequelize.transaction(async (transaction) => {
        const site = await SiteModel.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
        if (!site) return undefined;
        if (site.head !== base) return { newest: site.head };
        const number = base + 1;
        await writeRevision(id, number, base, revision, transaction);
        await site.update({ head: number }, { transaction });
        await DraftModel.destroy({ where: { siteId: id }, transaction });
        return { number };
      });
    },
    async draft(id) {
      const row = await DraftModel.findByPk(id);
      return row ? { base: row.base, operations: row.operations } : undefined;
    },
    async putDraft(id, draft) {
      await DraftModel.upsert({ siteId: id, base: draft.base, operations: [...draft.operations] });
    },
    async dropDraft(id) {
      await DraftModel.destroy({ where: { siteId: id } });
    },
  };

  async function writeRevision(
    siteId: string,
    number: number,
    parent: number | null,
    revision: NewRevision,
    transaction: Transaction,
  ): Promise<void> {
    await writeBlobs(revision.blobs, transaction);
    const { message, manifest, figures, changedFiles } = revision;
    await RevisionModel.create(
      { siteId, number, parent, message, manifest: { ...manifest }, figures, changedFiles },
      { transaction },
    );
  }

  async function writeBlobs(blobs: ReadonlyMap<string, Buffer>, transaction: Transaction): Promise<void> {
    let batch: [string, Buffer][] = [];
    let size = 0;
    const flush = async (): Promise<void> => {
      if (batch.length === 0) return;
      const values = batch.map((_, i) => `($${3 * i + 1}, $${3 * i + 2}, $${3 * i + 3})`).join(', ');
      const bind = batch.flatMap(([hash, bytes]) => [hash, bytes.length, bytes]);
      const sql = `INSERT INTO blob (hash, size, bytes) VALUES ${values} ON CONFLICT (hash) DO NOTHING`;
      await sequelize.query(sql, { bind, transaction, type: QueryTypes.INSERT });
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
}

const siteRecord = (row: SiteModel): SiteRecord => ({
  id: row.id,
  name: row.name,
  prefix: row.prefix,
  head: row.head,
  leftOut: row.leftOut,
  notes: row.notes,
});

const revisionRecord = (row: RevisionModel): RevisionRecord => ({
  number: row.number,
  message: row.message,
  savedAt: row.createdAt,
  figures: row.figures,
  changedFiles: row.changedFiles,
});
