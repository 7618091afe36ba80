/**
 * Whether a server or a template writes into a piece of a page: `<?php ?>`, `<% %>`, `{{ }}`, `{% %}`, `${ }`, server-side includes.
 * Common practice of servers and template languages.
 */
export const isTemplated = (text: string): boolean => /<\?|<%|\{\{|\{%|\$\{|<!--\s*#\s*[a-z]/i.test(text);
