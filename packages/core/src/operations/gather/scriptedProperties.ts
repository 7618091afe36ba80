import { attributeOf } from '../../page/nodes.ts';
import { textContent, type PageTree } from '../../page/parsePage.ts';
import { asciiText } from '../../source/asciiBytes.ts';
import type { Site } from '../../source/site.ts';
import { resolveReference, type Base } from '../../values/urls.ts';

/** What the scripts of a page may set or read through the `style` of elements: properties by name, or anything. */
export function scriptedProperties(tree: PageTree, base: Base, site: Site): ReadonlySet<string> | 'any' {
  const names = new Set<string>();
  for (const script of scriptsOf(tree, base, site)) if (collect(script, names)) return 'any';
  return names;
}

/** What the scripts of a page say: its own and those of the site, with the attributes that hold some. */
export function scriptsOf(tree: PageTree, base: Base, site: Site): readonly string[] {
  return tree.elements.flatMap((element) => {
    if (element.tag !== 'script')
      return element.attributes.filter(({ name }) => name.startsWith('on')).map(({ value }) => value);
    const reference = attributeOf(element, 'src');
    const target = reference === undefined ? undefined : resolveReference(reference, base);
    const file = target?.kind === 'site' ? site.files.get(target.path) : undefined;
    return [file ? asciiText(file.bytes) : textContent(element)];
  });
}

/** True when the script may touch any property: by a computed name, the whole text, or the attribute. */
function collect(script: string, names: Set<string>): boolean {
  if (/\.style\s*\[|cssText|\.style\s*=[^=]|["'](?:style|\[style)|Object\.assign\([^)]*\.style/.test(script))
    return true;
  for (const [, name] of script.matchAll(/\.style\s*\.\s*([A-Za-z]+)/g)) {
    if (/^(setProperty|removeProperty|getPropertyValue)$/.test(name!)) return true;
    names.add(name!.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`));
  }
  return /\.style\b(?!\s*\.)/.test(script);
}
