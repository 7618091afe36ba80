/** A sentence whose parts between backticks are code. */
export function InCode({ text }: { readonly text: string }) {
  return text.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : <span key={i}>{part}</span>));
}
