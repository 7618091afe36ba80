import { browserLexer as lexer } from './browserLexer.ts';

/** Whether some other browser may know a property that ours does not: it has a vendor's prefix, or a standard or another browser has it. */
export const isKnownElsewhere = (property: string): boolean =>
  /^-[a-z]+-/.test(property) || Boolean(lexer.getProperty(property));
