interface Written {
  readonly property: string;
  readonly value: string;
}

const told = [
  'font',
  'font-size',
  'font-weight',
  'width',
  'padding',
  'margin',
  'border',
  'border-left',
  'display',
  'float',
  'text-align',
  'text-decoration',
  'color',
  'background',
];

/** What a rule does in a few words: `400 18px/1.3 Georgia, padding 6px 9px`. Colours are shown as swatches beside it. */
export function summaryOf(declarations: readonly Written[]): string {
  const words = [...declarations]
    .sort((a, b) => rank(a.property) - rank(b.property))
    .map(({ property, value }) => {
      if (/colou?r$|^background$/.test(property)) return property;
      if (property === 'font') return value.split(',')[0]!.replace(/["']/g, '');
      if (property === 'font-family') return value.split(',')[0]!.replace(/["']/g, '');
      return `${property.replace(/^(font|text)-/, '')} ${value}`;
    });
  return words.slice(0, 3).join(', ') + (words.length > 3 ? ', …' : '');
}

function rank(property: string): number {
  const at = told.indexOf(property);
  return at < 0 ? told.length : at;
}
