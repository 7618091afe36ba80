import { parentPort, workerData } from 'node:worker_threads';
import type { ThreadData } from './analysis.ts';
import type { PartnerData } from './partnerOrders.ts';

/** A thread in its role: it answers what is asked about sites, or proves half of the pages for one that does. */
const data = workerData as ThreadData | PartnerData;
if ('partner' in data) (await import('./partnerThread.ts')).servePartner(data.partner);
else (await import('./siteThread.ts')).serveSites(data, parentPort!);
