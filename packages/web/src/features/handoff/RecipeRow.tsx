import { useRef, useState } from 'react';
import { addressOf, type FittedRecipeReply, type RecipeReply } from '@syndeton/contract';
import { problemText } from '../../app/api.ts';
import { actLook } from '../../ui/looks.ts';
import { Act } from '../../ui/Act.tsx';
import { Button } from '../../ui/Button.tsx';
import { Box } from '../../ui/Box.tsx';
import { count } from '../../ui/format.ts';
import type { DraftInHand } from '../drafts/index.ts';
import { useFitRecipeMutation } from './handoffApi.ts';

interface Props {
  readonly siteId: string;
  readonly revision: number;
  readonly inHand: DraftInHand;
  readonly onAdded: () => void;
}

/** What was done, as a file for other pages or another site; and such a file applied here, after what fits was told. */
export function RecipeRow({ siteId, revision, inHand, onAdded }: Props) {
  const file = useRef<HTMLInputElement>(null);
  const [fit] = useFitRecipeMutation();
  const [fitted, setFitted] = useState<(FittedRecipeReply & { readonly name: string }) | undefined>(undefined);
  const [problem, setProblem] = useState<string | undefined>(undefined);
  const [reading, setReading] = useState(false);
  const read = async (chosen: File): Promise<void> => {
    setProblem(undefined);
    setReading(true);
    try {
      const recipe = recipeIn(await chosen.text());
      const { base, version } = inHand.draft!;
      setFitted({ ...(await fit({ id: siteId, base, version, recipe }).unwrap()), name: recipe.name });
    } catch (error) {
      setProblem(problemText(error));
    } finally {
      setReading(false);
    }
  };
  const take = async (): Promise<void> => {
    try {
      await inHand.change((now) => [...now, ...fitted!.operations]);
      setFitted(undefined);
      onAdded();
    } catch (error) {
      setProblem(problemText(error));
    }
  };
  return (
    <tr>
      <td>
        <b>A recipe</b>
      </td>
      <td className="text-ink-2" colSpan={2}>
        {problem !== undefined ? (
          <span className="font-medium text-error" role="alert">
            {problem}
          </span>
        ) : reading ? (
          <span role="status">Trying what fits …</span>
        ) : (
          'what was done, for new pages or another site'
        )}
      </td>
      <td>
        <span className="flex justify-end gap-4">
          <a
            className={actLook}
            href={`${addressOf('readRecipe', { id: siteId, number: revision })}?since=1`}
            download="recipe.json"
          >
            Download
          </a>
          <Act disabled={reading} onClick={() => file.current!.click()}>
            Apply one here
          </Act>
        </span>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          className="hidden"
          aria-label="A recipe"
          onChange={(event) => {
            const [chosen] = event.target.files ?? [];
            event.target.value = '';
            if (chosen) void read(chosen);
          }}
        />
        {fitted && (
          <Box
            open
            onClose={() => setFitted(undefined)}
            title={`The recipe${fitted.name === '' ? '' : ` of ${fitted.name}`} on this site`}
          >
            {fitted.fits.length > 0 ? (
              <>
                <p>{count(fitted.fits.length, 'step')} can be done here:</p>
                <ol className="list-decimal py-2 pl-6 text-table">
                  {fitted.fits.map((sentence, i) => (
                    <li key={i}>{sentence}</li>
                  ))}
                </ol>
              </>
            ) : (
              <p>Nothing of it fits this site.</p>
            )}
            {fitted.misfits.length > 0 && (
              <>
                <p>{count(fitted.misfits.length, 'step')} cannot, and would be left out:</p>
                <ul className="py-2 pl-6 text-table text-ink-2">
                  {fitted.misfits.map(({ step, why }, i) => (
                    <li key={i}>
                      Step {step + 1}: {why}
                    </li>
                  ))}
                </ul>
              </>
            )}
            <div className="mt-3 flex items-center gap-4">
              {fitted.fits.length > 0 && (
                <Button next onClick={() => void take()}>
                  Put it into the draft
                </Button>
              )}
              <Act onClick={() => setFitted(undefined)}>{fitted.fits.length > 0 ? 'Cancel' : 'Close'}</Act>
            </div>
          </Box>
        )}
      </td>
    </tr>
  );
}

/** The server looks at its shape; here only whether it is one at all. */
function recipeIn(text: string): RecipeReply {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('This file is no recipe: it is not JSON. A recipe is downloaded here, or made by syndeton recipe.');
  }
  if (typeof value !== 'object' || value === null || !('recipe' in value))
    throw new Error('This file is no recipe. A recipe is downloaded here, or made by syndeton recipe.');
  return value as RecipeReply;
}
