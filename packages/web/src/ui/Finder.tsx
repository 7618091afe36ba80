import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';

import { boxLook, menuRowLook, smallBoxLook } from './looks.ts';
import { pageName } from './format.ts';

export interface Findable {
  readonly group: string;
  readonly label: string;
  readonly hint?: string;
  readonly run: () => void;
}

/** Find a page, a sheet, a rule or something to do; Ctrl K. At most 60 of a group are listed at a time. */
export function Finder({
  open,
  onClose,
  things,
  hint = 'Find a page, a rule, or something to do',
}: {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly things: readonly Findable[];
  readonly hint?: string;
}) {
  const [text, setText] = useState('');
  const wanted = text.trim().toLowerCase();
  const groups = [...new Set(things.map((thing) => thing.group))];
  const found = (group: string): readonly Findable[] =>
    things.filter((thing) => thing.group === group && thing.label.toLowerCase().includes(wanted)).slice(0, 60);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ground/70 z-20" />
        <Dialog.Content data-asking className={`${boxLook} ${smallBoxLook}`} aria-describedby={undefined}>
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Command shouldFilter={false} label="Find">
            <Command.Input
              className="w-full border-b border-line-2 bg-transparent px-4 py-3 outline-none focus-visible:shadow-none"
              placeholder={hint}
              value={text}
              onValueChange={setText}
              autoFocus
            />
            <Command.List className="p-1">
              <Command.Empty className="text-note text-ink-3 p-3">Nothing here has that name.</Command.Empty>
              {groups.map((group) => {
                const list = found(group);
                if (list.length === 0) return null;
                return (
                  <Command.Group key={group} heading={<span className="text-note text-ink-3 px-2">{group}</span>}>
                    {list.map((thing, i) => (
                      <Command.Item
                        key={`${group} ${thing.label} ${i}`}
                        value={`${group} ${thing.label} ${i}`}
                        className={menuRowLook}
                        onSelect={() => {
                          onClose();
                          setText('');
                          thing.run();
                        }}
                      >
                        <span>{group === 'Pages' ? pageName(thing.label) : thing.label}</span>
                        {thing.hint && <span className="text-note text-ink-3 ml-auto">{thing.hint}</span>}
                      </Command.Item>
                    ))}
                  </Command.Group>
                );
              })}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
