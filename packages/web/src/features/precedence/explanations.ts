/** A rule of the cascade in a few sentences, and where the standard says it. */
export interface Explanation {
  readonly title: string;
  readonly text: string;
  readonly standard: string;
}

const sorting = 'CSS Cascading and Inheritance Level 5, “Cascade Sorting Order”';

const explanations: Readonly<Record<string, Explanation>> = {
  importance: {
    title: 'Importance comes first',
    text: 'A declaration with !important beats all that have none, however strong their selectors are and even if they stand in a style attribute. Two important ones are compared like any others.',
    standard: 'CSS Cascading and Inheritance Level 5, “Important Declarations: the !important annotation”',
  },
  attribute: {
    title: 'A style attribute beats selectors',
    text: 'What stands in the style attribute of the element itself counts more than any rule of the same importance, however many IDs its selector has.',
    standard: `${sorting}, “Element-Attached Styles”`,
  },
  hint: {
    title: 'Presentational attributes are weak',
    text: 'Attributes such as bgcolor or align count as the author’s, but less than any rule: specificity nothing, before all sheets.',
    standard: 'CSS Cascading and Inheritance Level 5, “Precedence of Non-CSS Presentational Hints”',
  },
  layer: {
    title: 'Layers are compared before selectors',
    text: 'A rule in a later layer beats one in an earlier layer, and a rule in no layer beats both, whatever their selectors. With !important the order turns round.',
    standard: 'CSS Cascading and Inheritance Level 5, “Cascade Layers”',
  },
  specificity: {
    title: 'The more specific selector wins',
    text: 'Specificity counts IDs, then classes, attributes and pseudo-classes, then types: (1,0,0) beats any number of classes. It is compared from the left and never carried over.',
    standard: 'Selectors Level 4, “Calculating a selector’s specificity”',
  },
  proximity: {
    title: 'The nearer scope wins',
    text: 'Of two rules in @scope with equal specificity the one whose scope begins nearer to the element wins.',
    standard: 'CSS Cascading and Inheritance Level 6, “Cascade Sorting Order”',
  },
  order: {
    title: 'At last, the later one wins',
    text: 'Of two declarations equal in all else the one that comes later in the page counts. A linked sheet stands where its link stands, an imported one where it is imported; so a block overrides a sheet only when it comes after the link.',
    standard: `${sorting}, “Order of Appearance”`,
  },
  default: {
    title: 'The browser’s own rules are the weakest',
    text: 'Each browser brings a sheet of its own, with margins for body and bold headings. Anything an author says beats it.',
    standard: 'CSS Cascading and Inheritance Level 5, “Cascading Origins”',
  },
  inherited: {
    title: 'Inherited from the element around it',
    text: 'Where no declaration sets a property that is inherited, such as color or font-family, the element gets the value its parent has. Any declaration for the element itself, even in a weak rule, counts more.',
    standard: 'CSS Cascading and Inheritance Level 5, “Inheritance”',
  },
  alone: {
    title: 'Nobody contradicts',
    text: 'Declarations that set different properties combine: one source may give the colour, another the size. Here only one says anything.',
    standard: 'CSS Cascading and Inheritance Level 5, “Cascading”',
  },
  condition: {
    title: 'Its condition does not hold here',
    text: 'A rule inside @media or @supports, or in a link for another medium, counts only where the condition holds.',
    standard: 'CSS Conditional Rules Level 3, “Processing of conditional group rules”',
  },
  state: {
    title: 'Only in a state',
    text: 'The selector asks for a state, such as :hover or :visited, that the element is not in now. Hold the state on above the page to see it count.',
    standard: 'Selectors Level 4, “Dynamic pseudo-classes”',
  },
  peeled: {
    title: 'Peeled',
    text: 'You switched it off in this view to see who wins next. No file is touched.',
    standard: '',
  },
};

export const explanationOf = (kind: string): Explanation => explanations[kind] ?? explanations['alone']!;
