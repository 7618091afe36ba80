/**
 * What the server tells of while something runs, by Server-Sent Events; a stream that ended is asked for again. Returns the way to
 * stop. Where there are no events (old browsers, tests) nothing is told: the plain request is there beside it.
 */
export function followEvents<Reply>(address: string, onReply: (reply: Reply) => void): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  const source = new EventSource(address);
  source.onmessage = ({ data }: MessageEvent<string>) => onReply(JSON.parse(data) as Reply);
  return () => source.close();
}
