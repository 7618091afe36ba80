/** Who may reach the application, and how. */
export interface Access {
  /** People sign in. */
  readonly accounts: boolean;
  /** It is opened by https only. */
  readonly secure: boolean;
  /** Names it is opened by besides the one it listens on. */
  readonly hosts: readonly string[];
}

/**
 * On loopback it is one person's own. Elsewhere people sign in, by https from a proxy before it, unless told otherwise:
 * `ACCOUNTS` (`on`, `off`), `PUBLIC_ADDRESS` (`https://…`), `PLAIN_HTTP` (`allowed`).
 */
export function accessFrom(
  host: string,
  env: Readonly<Record<string, string | undefined>>,
): Access | { readonly problem: string } {
  const { ACCOUNTS: wanted, PUBLIC_ADDRESS: address, PLAIN_HTTP: plain } = env;
  if (wanted !== undefined && wanted !== 'on' && wanted !== 'off')
    return { problem: `ACCOUNTS=${wanted} is not known. on and off are allowed.` };
  const url = address === undefined ? undefined : addressIn(address);
  if (url === null)
    return { problem: `PUBLIC_ADDRESS=${address} is no address. Like https://styles.example is allowed.` };
  const isOwn = /^(?:127(?:\.\d+){3}|localhost|\[?::1\]?)$/i.test(host);
  const accounts = wanted === undefined ? !isOwn : wanted === 'on';
  const secure = url?.protocol === 'https:';
  if (!isOwn && !secure && plain !== 'allowed')
    return {
      problem: `On ${host} others can reach it, and without https they can read passwords on the way. Put a proxy that speaks https before it and name its address: PUBLIC_ADDRESS=https://… Or say that it may be so: PLAIN_HTTP=allowed`,
    };
  return { accounts, secure, hosts: url ? [url.hostname.toLowerCase()] : [] };
}

/** Null where it is none. */
function addressIn(text: string): URL | null {
  try {
    const url = new URL(text);
    return /^https?:$/.test(url.protocol) ? url : null;
  } catch {
    return null;
  }
}
