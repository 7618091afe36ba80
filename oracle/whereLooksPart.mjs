/** In the page: for each pair of sheets where they part, or an empty text. What does not hold still is asked no further. */
export async function whereLooksPart(pairs) {
  const pseudos = [
    'before',
    'after',
    'marker',
    'placeholder',
    'first-line',
    'first-letter',
    'selection',
    'file-selector-button',
  ];
  const style = document.head.appendChild(document.createElement('style'));
  const elements = [...document.querySelectorAll('html, body, body *')];
  const read = (text, both) => {
    style.textContent = text;
    return elements.flatMap((element) =>
      ['', ...pseudos.filter((one) => both.includes(one))].flatMap((pseudo) => {
        const shown = getComputedStyle(element, pseudo && '::' + pseudo);
        return [...shown, '--x', '--y'].map(
          (name) =>
            element.localName +
            '.' +
            (element.getAttribute('class') ?? '') +
            ' ' +
            pseudo +
            ' ' +
            name +
            ': ' +
            shown.getPropertyValue(name),
        );
      }),
    );
  };
  const out = [];
  for (const [before, after] of pairs) {
    const [a, b] = [read(before, before + after), read(after, before + after)];
    const at = a.findIndex((line, i) => line !== b[i]);
    if (at < 0) {
      out.push('');
      continue;
    }
    await new Promise((done) => setTimeout(done, 60));
    const [c, d, e] = [read(before, before + after), read(after, before + after), read(before, before + after)];
    const still = c.join() === e.join() ? c.findIndex((line, i) => line !== d[i]) : -1;
    out.push(still < 0 ? '' : c[still] + ' → ' + d[still]);
  }
  style.remove();
  return out;
}
