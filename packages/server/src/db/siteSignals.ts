import type { Transaction } from 'sequelize';
import type { SiteModel } from './models.ts';
import type { Signals } from './signals.ts';

const channel = 'site_changed';

/** Tells, with the transaction that did it, that something about a site was changed. */
export async function tellSiteChanged(site: SiteModel, transaction: Transaction): Promise<void> {
  await site.sequelize.query('SELECT pg_notify($1, $2)', { bind: [channel, site.id], transaction });
}

/** Called after each change of the site that was committed, by whichever process, and when some may have been missed. */
export const onSiteChanged = (signals: Signals, siteId: string, listener: () => void): (() => void) =>
  signals.on(channel, (told) => {
    if (told === undefined || told === siteId) listener();
  });
