/** A sentence in which what stands between backticks is written as code. */
export const Coded = ({ text }: { readonly text: string }) =>
  text.split('`').map((part, i) => (i % 2 === 1 ? <code key={i}>{part}</code> : part));
