import { useState } from 'react';
import { Field } from '../../ui/Field.tsx';

/** A name to type over: Enter keeps it, Escape leaves the old one. */
export function RenameField({
  name,
  onDone,
}: {
  readonly name: string;
  readonly onDone: (name: string | undefined) => void;
}) {
  const [text, setText] = useState(name);
  const empty = text.trim() === '';
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!empty) onDone(text.trim());
      }}
    >
      <Field
        aria-label="Name of the site"
        aria-invalid={empty}
        value={text}
        maxLength={200}
        autoFocus
        onChange={(event) => setText(event.target.value)}
        onBlur={() => onDone(empty ? undefined : text.trim())}
        onKeyDown={(event) => event.key === 'Escape' && onDone(undefined)}
      />
      {empty && <span className="text-note font-medium text-error">A site has a name of one character at least.</span>}
    </form>
  );
}
