/**
 * Whether a server or a template writes into a piece of a page: `<?php ?>`, `<% %>`, `{{ }}`, `{% %}`, `${ }`, server-side includes.
 * Common practice of servers and template languages.
 */
export const isTemplated = (text: string): boolean => /<\?|<%|\{\{|\{%|\$\{|<!--\s*#\s*[a-z]/i.test(text);

/**
 * A page that a server runs, with its code as comments that a parser of HTML passes over, at the same places: `<?php a() > 1 ?>` as
 * `<?php a()   1 ?>`. Code that is never closed runs to the end. Common practice of PHP, ASP, JSP and template languages.
 */
export const withoutCode = (text: string): string =>
  text.replace(/<\?(?!xml\b).*?(?:\?>|$)|<%.*?(?:%>|$)|\{%.*?(?:%\}|$)/gis, (code) => {
    const end = /(\?>|%>|%\})$/.test(code) ? 1 : 0;
    return `<?${code.slice(2, code.length - end).replace(/>/g, ' ')}${end === 1 ? '>' : ''}`;
  });
