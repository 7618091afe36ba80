import { parseSheet, sheetsOf, type RulePlace, type Site } from '@syndeton/core';

/** Every style rule of a site's sheets. */
export const rulePlaces = (site: Site): readonly RulePlace[] =>
  sheetsOf(site).flatMap((sheet) =>
    parseSheet(sheet.text!).rules.flatMap((rule) =>
      rule.kind === 'style' ? [{ path: sheet.path, offset: rule.span.start }] : [],
    ),
  );
