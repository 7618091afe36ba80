import { Op, type Sequelize, type Transaction } from 'sequelize';
import type { OperationBody } from '@syndeton/contract';
import { DraftLateModel, DraftVersionModel, SiteModel } from '../db/models.ts';
import { tellSiteChanged } from '../db/siteSignals.ts';
import type { DraftRecord, DraftStore } from './draftStore.ts';

/** Versions of a draft that are kept. */
const mostKept = 30;

export function makeSequelizeDraftStore(sequelize: Sequelize): DraftStore {
  return {
    async find(siteId) {
      const site = await SiteModel.findOne({ where: { id: siteId, removedAt: null } });
      if (!site) return undefined;
      const { head: base, draftVersion: version } = site;
      const row = await DraftVersionModel.findOne({ where: { siteId, version } });
      return { base, version, operations: row?.operations ?? [] };
    },
    past,
    async put(siteId, { base, version, operations }) {
      return sequelize.transaction(async (transaction) => {
        const where = { id: siteId, removedAt: null };
        const site = await SiteModel.findOne({ where, transaction, lock: transaction.LOCK.UPDATE });
        if (!site) return { kind: 'site-gone' };
        if (site.head !== base) return { kind: 'site-changed', newest: site.head };
        if (site.draftVersion !== version) return { kind: 'draft-changed' };
        await setDraft(site, operations, transaction);
        return { kind: 'done', number: site.draftVersion };
      });
    },
    async keepLate(siteId, madeOn, operations) {
      return (await DraftLateModel.create({ siteId, madeOn, operations: [...operations] })).id;
    },
    async late(siteId, id) {
      const row = await DraftLateModel.findOne({ where: { siteId, id } });
      return row ? { madeFrom: await past(siteId, row.madeOn), operations: row.operations } : undefined;
    },
    async dropLate(siteId, id) {
      await DraftLateModel.destroy({ where: { siteId, id } });
    },
  };
}

async function past(siteId: string, version: number): Promise<DraftRecord | undefined> {
  // a site begins with nothing in its draft, and no row says so
  if (version === 0) return { base: 1, version, operations: [] };
  const row = await DraftVersionModel.findOne({ where: { siteId, version } });
  return row ? { base: row.base, version, operations: row.operations } : undefined;
}

/** The next version of a draft, on the newest revision of a site locked by the caller; saves what the caller set on the site too. */
export async function setDraft(
  site: SiteModel,
  operations: readonly OperationBody[],
  transaction: Transaction,
): Promise<void> {
  const version = site.draftVersion + 1;
  site.set({ draftVersion: version });
  await site.save({ transaction });
  const row = { siteId: site.id, version, base: site.head, operations: [...operations] };
  await DraftVersionModel.create(row, { transaction });
  const old = { siteId: site.id, version: { [Op.lte]: version - mostKept } };
  await DraftVersionModel.destroy({ where: old, transaction });
  await tellSiteChanged(site, transaction);
}
