/** Milliseconds until it is done all the same, and where a browser does not say when it is idle. */
const latest = 3000;
const soon = 500;

/** Does what nobody waits for once the browser has nothing better to do. Returns the way to leave it. W3C, "requestIdleCallback". */
export function whenIdle(act: () => void): () => void {
  if (typeof requestIdleCallback === 'undefined') {
    const timer = setTimeout(act, soon);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(act, { timeout: latest });
  return () => cancelIdleCallback(asked);
}
