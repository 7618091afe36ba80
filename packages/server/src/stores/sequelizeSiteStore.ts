import { Op, QueryTypes, type Sequelize } from 'sequelize';
import { DraftLateModel, SiteModel, SiteRightModel } from '../db/models.ts';
import { whoAsks } from '../people/whoAsks.ts';
import type { Blobs } from './blobs.ts';
import { endImport } from './sequelizeImportStore.ts';
import type { RevisionRecord } from './revisionStore.ts';
import { writeRevision } from './sequelizeNewRevision.ts';
import type { ListedSite, SiteRecord, SiteStore } from './siteStore.ts';

export function makeSequelizeSiteStore(sequelize: Sequelize, blobs: Blobs): SiteStore {
  return {
    async create(site, first, importing) {
      return sequelize.transaction(async (transaction) => {
        const row = await SiteModel.create(
          { ...site, leftOut: site.leftOut.map((one) => ({ ...one })), head: 1 },
          { transaction },
        );
        const person = whoAsks();
        if (person) await SiteRightModel.create({ siteId: row.id, personId: person.id, right: 'own' }, { transaction });
        await writeRevision(sequelize, blobs, row.id, 1, first, transaction);
        if (importing) await endImport(sequelize, importing, { ...importing.reply, siteId: row.id }, transaction);
        return siteRecord(row);
      });
    },
    async list() {
      const person = whoAsks();
      const own = person && !person.isAdministrator ? person.id : null;
      // one row a site that may be seen: its newest revision without the manifest, and how much its draft holds
      const rows = await sequelize.query<ListedRow>(
        `SELECT site.id, name, prefix, head, left_out AS "leftOut", notes, message, revision.created_at AS "savedAt", figures,
                changed_files AS "changedFiles", coalesce(jsonb_array_length(operations), 0) AS "draftOperations"
         FROM site JOIN revision ON revision.site_id = site.id AND number = head
         LEFT JOIN draft_version AS draft ON draft.site_id = site.id AND version = draft_version
         WHERE removed_at IS NULL
           AND ($1::uuid IS NULL OR EXISTS (SELECT 1 FROM site_right WHERE site_right.site_id = site.id AND person_id = $1::uuid))
         ORDER BY site.created_at DESC`,
        { bind: [own], type: QueryTypes.SELECT },
      );
      return rows.map(listedSite);
    },
    async find(id) {
      const row = await SiteModel.findOne({ where: { id, removedAt: null } });
      return row ? siteRecord(row) : undefined;
    },
    async rename(id, name) {
      await SiteModel.update({ name }, { where: { id } });
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
    async purge(before) {
      await SiteModel.destroy({ where: { removedAt: { [Op.lt]: before } } });
      await DraftLateModel.destroy({ where: { updatedAt: { [Op.lt]: before } } });
      await blobs.purge();
    },
  };
}

interface ListedRow extends SiteRecord, Omit<RevisionRecord, 'number'> {
  readonly draftOperations: number;
}

const listedSite = (row: ListedRow): ListedSite => ({
  site: siteRecord(row),
  newest: {
    number: row.head,
    message: row.message,
    savedAt: row.savedAt,
    figures: row.figures,
    sentences: [],
    note: '',
    by: '',
    changedFiles: row.changedFiles,
  },
  draftOperations: row.draftOperations,
});

const siteRecord = ({ id, name, prefix, head, leftOut, notes }: SiteRecord): SiteRecord => ({
  id,
  name,
  prefix,
  head,
  leftOut,
  notes,
});
