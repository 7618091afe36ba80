/** Keeps a shown page where it is: nothing in it leads elsewhere, by pointer or by key. */
export function holdStill(document: Document): void {
  const stop = (event: Event): void => event.preventDefault();
  for (const kind of ['click', 'auxclick', 'submit'])
    EventTarget.prototype.addEventListener.call(document, kind, stop, true);
}
