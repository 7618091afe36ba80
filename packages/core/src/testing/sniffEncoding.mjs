// html-encoding-sniffer does not load inside Jest (ESM below CommonJS): asked from a process of its own. Byte strings in, names out.
import sniff from 'html-encoding-sniffer';

let input = '';
for await (const part of process.stdin) input += part;
const pages = JSON.parse(input);
process.stdout.write(
  JSON.stringify(
    pages.map((page) =>
      sniff(
        Uint8Array.from(page, (c) => c.charCodeAt(0)),
        { defaultEncoding: 'windows-1252' },
      ).toLowerCase(),
    ),
  ),
);
