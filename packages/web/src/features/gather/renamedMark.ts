import type { OperationBody } from '@syndeton/contract';

/** The operation with another name for a class of pages, in the pages, the selectors and the headings. */
export function renamedMark(operation: OperationBody, from: string, to: string): OperationBody {
  if (operation.kind !== 'gather-sheet' || !operation.marks?.some(({ name }) => name === from)) return operation;
  const asClass = new RegExp(`\\.${from}(?![\\w-])`, 'g');
  const asWord = new RegExp(`(?<![\\w./-])${from}(?![\\w./-])`, 'g');
  return {
    ...operation,
    marks: operation.marks.map((mark) => (mark.name === from ? { ...mark, name: to } : mark)),
    rules: operation.rules.map((rule) => ({
      ...rule,
      ...(rule.selector === undefined ? {} : { selector: rule.selector.replace(asClass, `.${to}`) }),
      ...(rule.section === undefined ? {} : { section: rule.section.replace(asWord, to) }),
    })),
  };
}
