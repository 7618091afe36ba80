import { describe, expect, test } from '@jest/globals';
import fs from 'node:fs';
import type { ChildNode, ElementNode } from './nodes.ts';
import { parsePage } from './parsePage.ts';

// html5lib tree-construction tests as in Debian's golang-golang-x-net-dev 0.7.0 (BSD, see published/html5lib/LICENSE): whole
// documents; contents of template are no part of our tree, fragments are never parsed here
const folder = new URL('../../testdata/published/html5lib/', import.meta.url);

interface Case {
  readonly data: string;
  readonly scripting: boolean;
  readonly tree: string;
}

function casesOf(file: string): Case[] {
  const text = fs.readFileSync(new URL(file, folder), 'utf8');
  return text.split(/(?:^|\n\n)#data\n/).flatMap((block) => {
    const found =
      /^([^]*?)\n?#errors\n[^]*?(#script-o(?:n|ff)\n)?(#document-fragment\n[^]*?)?#document\n([^]*?)\n?$/.exec(block);
    if (!found || found[3] !== undefined || found[1]!.includes('<template')) return [];
    return [{ data: found[1]!, scripting: found[2] !== '#script-off\n', tree: found[4]! }];
  });
}

const prefixes = { html: '', svg: 'svg ', mathml: 'math ', other: '' };

function draw(nodes: readonly ChildNode[], depth: number, out: string[]): string[] {
  const put = (text: string, more = 0): unknown => out.push(`| ${'  '.repeat(depth + more)}${text}`);
  for (const node of nodes) {
    if (node.type === 'text') put(`"${node.value}"`);
    else if (node.type === 'comment') put(`<!-- ${node.value} -->`);
    else if (node.type === 'doctype') {
      const ids = node.publicId || node.systemId ? ` "${node.publicId}" "${node.systemId}"` : '';
      put(`<!DOCTYPE ${node.name}${ids}>`);
    } else {
      put(`<${prefixes[node.namespace]}${node.tag}>`);
      for (const text of attributesOf(node)) put(text, 1);
      draw(node.children, depth + 1, out);
    }
  }
  return out;
}

const attributesOf = (element: ElementNode): string[] =>
  element.attributes.map((a) => `${a.prefix ? `${a.prefix} ` : ''}${a.name}="${a.value}"`).sort();

describe.each(fs.readdirSync(folder).filter((name) => name.endsWith('.dat')))('%s', (file) => {
  test.each(casesOf(file).map((one) => [one.data, one] as const))('%j', (_, { data, scripting, tree }) => {
    expect(draw(parsePage(data, scripting).document.children, 0, []).join('\n')).toBe(tree);
  });
});
