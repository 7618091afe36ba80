/** Milliseconds after a stream that was refused. */
const again = 5000;

/**
 * What the server tells of while something runs, by Server-Sent Events; a stream that ended or was refused is asked for again. Returns
 * the way to stop. Where there are no events (old browsers, tests) nothing is told: the plain request is there beside it. HTML Standard,
 * "Server-sent events": a browser asks again for a stream that broke off, never for one whose reply was an error.
 */
export function followEvents<Reply>(address: string, onReply: (reply: Reply) => void): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const follow = (): void => {
    source = new EventSource(address);
    source.onmessage = ({ data }: MessageEvent<string>) => onReply(JSON.parse(data) as Reply);
    source.onerror = () => {
      // a server that starts, a proxy without one
      if (source.readyState === EventSource.CLOSED) timer = setTimeout(follow, again);
    };
  };
  follow();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}
