import { Link } from 'react-router';
import type { SiteSummaryReply } from '@syndeton/contract';
import { Act } from '../../ui/Act.tsx';
import { actLook } from '../../ui/looks.ts';
import { Menu, MenuItem } from '../../ui/Menu.tsx';
import type { ChooseStates, States } from './useStates.ts';

/** What there is to compare, and how it is chosen. */
export interface Chooser {
  readonly choose: ChooseStates;
  readonly revisions: readonly { readonly number: number; readonly message: string }[];
  /** Something is in the draft. */
  readonly inDraft: boolean;
  /** Other sites here: a folder or zip brought in to be compared is one. */
  readonly others: readonly Pick<SiteSummaryReply, 'id' | 'name' | 'revision'>[];
}

/** Which two states are compared, in words to change. */
export function StatesChosen({
  states: { from, to, other },
  chooser,
}: {
  readonly states: States;
  readonly chooser: Chooser;
}) {
  const { choose, revisions, inDraft, others } = chooser;
  const newest = Math.max(1, ...revisions.map(({ number }) => number));
  const later = (number: number): number | 'draft' =>
    to === 'draft' || to > number ? to : number < newest ? number + 1 : 'draft';
  const earlier = [...revisions].filter(({ number }) => number < newest || inDraft);
  return (
    <>
      <Menu
        label="The state before"
        trigger={
          <Act>
            {other === undefined
              ? `r${from}`
              : `${others.find(({ id }) => id === other)?.name ?? 'another site'}, r${from}`}
          </Act>
        }
      >
        {earlier.map(({ number, message }) => (
          <MenuItem key={number} onSelect={() => choose(number, later(number))}>
            <b>r{number}</b> <span>{message}</span>
          </MenuItem>
        ))}
        <OtherSites others={others} onChoose={(id, revision) => choose(revision, to, id)} />
      </Menu>{' '}
      against{' '}
      <Menu label="The state after" trigger={<Act>{to === 'draft' ? 'the draft' : `r${to}`}</Act>}>
        {inDraft && <MenuItem onSelect={() => choose(from, 'draft', other)}>the draft</MenuItem>}
        {revisions
          .filter(({ number }) => other !== undefined || number > from)
          .map(({ number, message }) => (
            <MenuItem key={number} onSelect={() => choose(from, number, other)}>
              <b>r{number}</b> <span>{message}</span>
            </MenuItem>
          ))}
      </Menu>
    </>
  );
}

const OtherSites = ({
  others,
  onChoose,
}: {
  readonly others: Chooser['others'];
  readonly onChoose: (id: string, revision: number) => void;
}) =>
  others.map(({ id, name, revision }) => (
    <MenuItem key={id} onSelect={() => onChoose(id, revision)}>
      <b>{name}</b> <span className="text-note text-ink-3 ml-auto">another site, r{revision}</span>
    </MenuItem>
  ));

/** What is on a server, or in another folder, against this site: it is brought in as a site of its own first. */
export function CompareOther({ chooser: { choose, others, inDraft, revisions } }: { readonly chooser: Chooser }) {
  const to = inDraft ? 'draft' : Math.max(1, ...revisions.map(({ number }) => number));
  if (others.length === 0)
    return (
      <Link className={actLook} to="/">
        Bring in a folder or zip to compare it with
      </Link>
    );
  return (
    <Menu label="Another site to compare with" trigger={<Act>Compare it with another site</Act>}>
      <OtherSites others={others} onChoose={(id, revision) => choose(revision, to, id)} />
    </Menu>
  );
}
