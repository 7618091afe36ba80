const sentences = {
  links:
    'Links will show every page against every sheet in load order, say in words which link is missing or wrong, and mend it in the page’s own syntax.',
  precedence:
    'Precedence will show for any element who wins each property and why, answer a question over all pages at once, and list what beats the shared sheets.',
} as const;

/** A station that is not built yet says in one sentence what it will do. */
export function LaterStation({ station }: { readonly station: keyof typeof sentences }) {
  return (
    <div className="max-w-[64ch] p-6">
      <h1 className="say">{sentences[station]}</h1>
      <p className="note mt-2">This station is not built yet.</p>
    </div>
  );
}
