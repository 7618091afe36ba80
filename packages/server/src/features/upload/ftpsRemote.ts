import { createHash } from 'node:crypto';
import { Readable, Writable } from 'node:stream';
import tls from 'node:tls';
import { Client, FTPError } from 'basic-ftp';
import { asFolder, foldersOf, RemoteProblem, type Remote, type RemoteAddress } from './remote.ts';

/** The fingerprint of the certificate of the machine that answers. */
export async function ftpsKey(address: Pick<RemoteAddress, 'host' | 'port'>): Promise<string> {
  const client = new Client(15_000);
  try {
    await client.connect(address.host, address.port);
    await client.useTLS({ rejectUnauthorized: false });
    return keyOf(client);
  } catch (error) {
    throw new RemoteProblem(inWords(error, address.host, address.port));
  } finally {
    client.close();
  }
}

/** Explicit FTPS (RFC 4217). `key`: the fingerprint that the machine's certificate has to have. */
export async function openFtps({ host, port, user, password, folder }: RemoteAddress, key: string): Promise<Remote> {
  const client = new Client(30_000);
  try {
    await client.connect(host, port);
    await client.useTLS({ rejectUnauthorized: false });
    if (keyOf(client) !== key)
      throw new RemoteProblem(
        `${host} is another machine than before: its certificate is not ${key}. Nothing was sent to it.`,
      );
    await client.login(user, password);
    await client.useDefaultSettings();
  } catch (error) {
    client.close();
    throw error instanceof RemoteProblem ? error : new RemoteProblem(inWords(error, host, port));
  }
  const root = asFolder(folder);
  const isMissing = (error: unknown): boolean => error instanceof FTPError && error.code === 550;
  const known = new Set<string>();
  return {
    async read(path) {
      const parts: Buffer[] = [];
      const into = new Writable({
        write(chunk: Buffer, _encoding, done) {
          parts.push(chunk);
          done();
        },
      });
      try {
        await client.downloadTo(into, root + path);
        return Buffer.concat(parts);
      } catch (error) {
        if (isMissing(error)) return undefined;
        throw error;
      }
    },
    async size(path) {
      try {
        return await client.size(root + path);
      } catch (error) {
        if (isMissing(error)) return undefined;
        throw error;
      }
    },
    async write(path, bytes) {
      for (const one of foldersOf(path)) {
        if (known.has(one)) continue;
        // it may be there already
        await client.send(`MKD ${root}${one}`, true);
        known.add(one);
      }
      const part = `${root}${path}.part`;
      await client.uploadFrom(Readable.from(bytes.length === 0 ? [] : [bytes]), part);
      await client.rename(part, root + path);
    },
    close: () => client.close(),
  };
}

function keyOf(client: Client): string {
  const { socket } = client.ftp;
  if (!(socket instanceof tls.TLSSocket)) throw new RemoteProblem('The server speaks no TLS.');
  const { raw } = socket.getPeerCertificate() as { raw?: Buffer };
  if (!raw) throw new RemoteProblem('The server shows no certificate.');
  return `SHA256:${createHash('sha256').update(raw).digest('base64').replace(/=+$/, '')}`;
}

function inWords(error: unknown, host: string, port: number): string {
  const { code, message } = error as { code?: string | number; message: string };
  if (code === 530) return `${host} does not take this name and password.`;
  if (code === 'ECONNREFUSED') return `Nobody answers at ${host}, port ${port}.`;
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return `There is no machine ${host}.`;
  return `${host}: ${message}`;
}
