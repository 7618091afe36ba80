import { attributesSheetBeside, describeAttributeStays, planGatherAttributes, type Site } from '@syndeton/core';
import type { AttributeGroupsReply } from '@syndeton/contract';

/** The style attributes of a site, grouped by what they say. */
export function attributeGroups(site: Site): AttributeGroupsReply {
  const sheet = attributesSheetBeside('css/site.css', site.files.keys());
  const plan = planGatherAttributes(site, { kind: 'gather-attributes', sheet });
  const staying = plan.ok ? plan.value.left : plan.problem.kind === 'no-attributes' ? plan.problem.left : [];
  const left = new Map<string, { elements: number; pages: Set<string> }>();
  for (const { page, reason } of staying) {
    const words = describeAttributeStays(reason);
    const one = left.get(words) ?? { elements: 0, pages: new Set() };
    left.set(words, one);
    one.elements++;
    one.pages.add(page);
  }
  return {
    groups: (plan.ok ? plan.value.groups : []).map((group) => ({
      ...group,
      tags: [...group.tags],
      declarations: [...group.declarations],
      pages: [...group.pages],
    })),
    left: [...left].map(([reason, { elements, pages }]) => ({ reason, elements, pages: [...pages] })),
  };
}
