import type { Words } from '#contract/settings';

/** Words that differ from school to school, with what each may be called. */
const CHOICES: {
  readonly [K in keyof Words]: {
    readonly title: string;
    readonly choices: readonly { readonly choice: Words[K]; readonly name: string }[];
  };
} = {
  phases: {
    title: 'Phases of the shuffle are called',
    choices: [
      { choice: 'pair-first', name: 'pair first, singles first' },
      { choice: 'long-first', name: 'long first, short first' },
    ],
  },
  cut: {
    title: 'A cut is',
    choices: [
      { choice: 'left-hand', name: 'the finger’s quick grace' },
      { choice: 'bowed-triplet', name: 'the bowed triplet' },
    ],
  },
  flick: {
    title: 'A finger that brushes the string is',
    choices: [
      { choice: 'flick', name: 'a flick' },
      { choice: 'cran', name: 'a cran' },
    ],
  },
};

const NAMES = Object.keys(CHOICES) as (keyof Words)[];

export function WordsSection(props: {
  readonly words: Words;
  readonly onWords: (words: Words, label: string) => void;
}) {
  return (
    <>
      {NAMES.map((name) => (
        <WordField key={name} name={name} {...props} />
      ))}
    </>
  );
}

function WordField(props: {
  readonly name: keyof Words;
  readonly words: Words;
  readonly onWords: (words: Words, label: string) => void;
}) {
  const { name, words, onWords } = props;
  const { title, choices } = CHOICES[name];
  return (
    <fieldset className="rounded-md border border-line px-3 pt-1 pb-2">
      <legend className="px-1 font-bold">{title}</legend>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
        {choices.map(({ choice, name: called }) => (
          <label key={choice} className="flex items-center gap-2">
            <input
              type="radio"
              name={name}
              className="accent-woad"
              checked={choice === words[name]}
              onChange={() => onWords({ ...words, [name]: choice }, `${title.toLowerCase()} ${called}`)}
            />
            {called}
          </label>
        ))}
      </div>
      <p className="text-hint text-muted">Words only: they change no figures.</p>
    </fieldset>
  );
}
