import { autocompletion, type Completion as Option, type CompletionResult } from '@codemirror/autocomplete';
import type { Extension } from '@codemirror/state';
import type { Completion, Completions, SiteWords } from '@syndeton/core';

/** Asks what may stand at an offset of a text. */
export type AskCompletions = (text: string, offset: number, words: SiteWords) => Promise<Completions | undefined>;

/** Completion with the site's own names and samples of its colours and fonts. */
export const completion = (ask: AskCompletions, words: () => SiteWords): Extension =>
  autocompletion({
    icons: false,
    override: [
      async ({ state, pos, explicit }): Promise<CompletionResult | null> => {
        const found = await ask(state.doc.toString(), pos, words());
        if (!found || (!explicit && found.from === pos)) return null;
        return { from: found.from, options: found.options.map(optionOf), validFor: /^[.#]?[\w-]*$/ };
      },
    ],
    addToOptions: [{ position: 20, render: (option) => sampleOf(option as Option & { readonly sample?: Completion }) }],
  });

function optionOf(completion: Completion): Option & { readonly sample: Completion } {
  const { label, kind, uses, apply } = completion;
  const detail = uses === undefined ? {} : { detail: `${uses}` };
  // what the site uses stands first, the most used on top
  const boost = uses === undefined ? 0 : Math.min(50, 10 + Math.round(Math.log2(uses + 1)));
  return { label, type: kind, boost, sample: completion, ...detail, ...(apply === undefined ? {} : { apply }) };
}

function sampleOf({ sample }: { readonly sample?: Completion }): Node | null {
  if (sample?.kind === 'colour') {
    const box = document.createElement('span');
    box.className = 'sw';
    box.style.backgroundColor = sample.label;
    return box;
  }
  if (sample?.kind !== 'font') return null;
  const word = document.createElement('span');
  word.className = 'fsample';
  word.style.fontFamily = sample.label;
  word.textContent = 'Ag';
  return word;
}
