import type * as Sdk from '@aws-sdk/client-s3';
import { Refusal } from '../http/refusal.ts';
import { sha256 } from './sha256.ts';

/** Bytes by their SHA-256 outside the database. Refused as `store-away` when it does not answer as it should. */
export interface BlobBytes {
  put(blobs: readonly (readonly [hash: string, bytes: Buffer])[]): Promise<void>;
  get(hash: string): Promise<Buffer>;
  drop(hashes: readonly string[]): Promise<void>;
}

/** So many requests at once. */
const atOnce = 16;
const mostDropped = 1000;

/** A store that speaks the S3 protocol. */
export interface BlobPlace {
  readonly endpoint: string;
  readonly bucket: string;
  readonly region: string;
  readonly accessKeyId: string;
  readonly secretAccessKey: string;
}

/** `BLOBS`, `BLOBS_KEY`, `BLOBS_SECRET`, `BLOBS_REGION`; undefined: in the database. Throws what is wrong with them. */
export function blobPlaceFrom(env: Readonly<Record<string, string | undefined>>): BlobPlace | undefined {
  const { BLOBS: address, BLOBS_KEY: accessKeyId, BLOBS_SECRET: secretAccessKey, BLOBS_REGION: region } = env;
  if (address === undefined) return undefined;
  const url = URL.canParse(address) ? new URL(address) : undefined;
  const bucket = url?.pathname.replace(/^\/|\/$/g, '');
  if (!url || !/^https?:$/.test(url.protocol) || !bucket || bucket.includes('/'))
    throw new Error(`BLOBS=${address} names no store. Like https://store.example/bucket is allowed.`);
  if (!accessKeyId || !secretAccessKey)
    throw new Error('BLOBS needs BLOBS_KEY and BLOBS_SECRET, the key to the store.');
  return { endpoint: url.origin, bucket, region: region ?? 'us-east-1', accessKeyId, secretAccessKey };
}

export function openBlobBytes({ endpoint, bucket, region, ...credentials }: BlobPlace): BlobBytes {
  let opened: Promise<{ client: Sdk.S3Client } & typeof Sdk> | undefined;
  // who keeps files in the database does not load it
  const open = (): NonNullable<typeof opened> =>
    (opened ??= import('@aws-sdk/client-s3').then((sdk) => ({
      ...sdk,
      client: new sdk.S3Client({
        endpoint,
        region,
        credentials,
        forcePathStyle: true,
        // not every store knows the newer checksums; each blob is held against its SHA-256 here
        requestChecksumCalculation: 'WHEN_REQUIRED',
        responseChecksumValidation: 'WHEN_REQUIRED',
      }),
    })));
  return {
    async put(blobs) {
      const { client, PutObjectCommand } = await open();
      await each(blobs, async ([hash, bytes]) => {
        await client.send(new PutObjectCommand({ Bucket: bucket, Key: hash, Body: bytes })).catch(away);
      });
    },
    async get(hash) {
      const { client, GetObjectCommand } = await open();
      const { Body } = await client.send(new GetObjectCommand({ Bucket: bucket, Key: hash })).catch(away);
      const bytes = Buffer.from(await Body!.transformToByteArray().catch(away));
      if (sha256(bytes) !== hash) throw new Error(`the store gives other bytes for ${hash} than were put there`);
      return bytes;
    },
    async drop(hashes) {
      const { client, DeleteObjectsCommand } = await open();
      for (let i = 0; i < hashes.length; i += mostDropped) {
        const Objects = hashes.slice(i, i + mostDropped).map((Key) => ({ Key }));
        await client.send(new DeleteObjectsCommand({ Bucket: bucket, Delete: { Objects, Quiet: true } })).catch(away);
      }
    },
  };
}

function away(error: unknown): never {
  if (error instanceof Error && error.name === 'NoSuchKey')
    throw new Error('the store does not hold what was put there', { cause: error });
  const why = error instanceof Error ? error.name : String(error);
  throw new Refusal(
    'store-away',
    `The store of files does not answer as it should (${why}). What was saved before is safe; do it again in a moment.`,
  );
}

/** A few at a time. */
export async function each<One>(list: readonly One[], act: (one: One) => Promise<void>): Promise<void> {
  let next = 0;
  const lane = async (): Promise<void> => {
    while (next < list.length) await act(list[next++]!);
  };
  await Promise.all(Array.from({ length: Math.min(atOnce, list.length) }, lane));
}
