import { type Command, COMMAND_GROUPS, type CommandGroup } from '../commands/command';
import { COMMANDS } from '../commands/commands';
import { keysShown } from '../commands/keys';
import type { SheetProps } from '../openTune/sheetProps';
import { Sheet } from '../ui/Sheet';

/** Keys while notes are entered. */
const ENTRY_KEYS: readonly [string, string][] = [
  ['G D A E, 0 … 4', 'by calls: string and finger'],
  ['A … G', 'by letters; ’ and , move an octave'],
  ['↑ ↓, Space', 'on the staff: move the pencil, write'],
  ['O P T H', 'one, a pair, three in a stroke; one held'],
  ['K L', 'shorter, longer'],
  ['. U', 'dotted, tuplet'],
  ['R J N &', 'rest, tie, grace note, chord'],
  ['+ −', 'raise, lower what was entered last'],
  ['Y', 'confirm a string that was not said'],
  ['Ctrl V', 'calls or letters from elsewhere, as D:2 A:0 or d f# a'],
  ['| [ X', 'bar line, ending, new part'],
  ['I W', 'write over what follows; other way of entry'],
];

export function KeysSheet({ onClose }: Pick<SheetProps, 'onClose'>) {
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Keys"
      description="They work anywhere on the page except in a text field."
    >
      {/* Focusable, so that the keys scroll it. */}
      <div tabIndex={0}>
        <CommandKeys />
        <h3 className="mt-4 mb-1 text-lead">While notes are entered</h3>
        <KeyList keys={ENTRY_KEYS} />
        <h3 className="mt-4 mb-1 text-lead">Signs of our own</h3>
        <Legend />
      </div>
    </Sheet>
  );
}

/** Every command, by group; those without a key of their own are found by their names. */
function CommandKeys() {
  return (Object.keys(COMMAND_GROUPS) as CommandGroup[]).map((group) => (
    <section key={group}>
      <h3 className="mt-4 mb-1 text-lead">{COMMAND_GROUPS[group]}</h3>
      <KeyList keys={keyLines(COMMANDS.filter((command) => command.group === group))} />
    </section>
  ));
}

/** A line for each command, or for a family of them: its keys and what it does. */
export function keyLines(commands: readonly Command[]): (readonly [string, string])[] {
  const families = new Map<string, Command[]>();
  for (const command of commands) {
    const name = command.family ?? command.label;
    families.set(name, [...(families.get(name) ?? []), command]);
  }
  return [...families].map(([name, [first, ...others]]) => {
    const own = first!.keys.map(keysShown).join(', ');
    const last = others.at(-1)?.keys[0];
    return [
      last === undefined ? own : `${own} … ${keysShown(last)}`,
      first!.help === undefined ? name : `${name}: ${first!.help}`,
    ];
  });
}

function KeyList({ keys }: { readonly keys: readonly (readonly [string, string])[] }) {
  return (
    <dl className="grid grid-cols-[minmax(8rem,auto)_1fr] gap-x-5 gap-y-1">
      {keys.map(([combination, deed]) => (
        <div key={deed} className="contents">
          <dt className="font-bold whitespace-nowrap">{combination || <span className="text-muted">by name</span>}</dt>
          <dd>{deed}</dd>
        </div>
      ))}
    </dl>
  );
}

const SIGNS: readonly { path: string; words: string; tone: string; isLine?: boolean }[] = [
  {
    path: 'M10 2a1.8 1.8 0 1 0 3.6 0a1.8 1.8 0 1 0-3.6 0ZM8 16V7h8v9h-1v-5.4h-6V16Z',
    words: 'a bow sign that turns round on another pass',
    tone: 'var(--madder)',
  },
  { path: 'M8 17v-7h8v7ZM9.4 10V8a2.6 2.6 0 0 1 5.2 0v2', words: 'locked to its direction', tone: 'var(--walnut)' },
  { path: 'M4 6q8-7 16 0M9 11h6', words: 'a hook: the bow stops under the slur', tone: 'var(--ink)', isLine: true },
  { path: 'M4 5L20 15M12 7.5v5', words: 'bow lane: a note that shares a stroke', tone: 'var(--ink)', isLine: true },
  { path: 'M4 10q8-5.5 16 0q-8 5.5-16 0Z', words: 'a pulse: the bow swells and comes back', tone: 'var(--ink)' },
  { path: 'M9 7l6 6m0-6l-6 6', words: 'arm lane: a crossing sweeps over a string', tone: 'var(--weld)', isLine: true },
];

/** What the signs mean that no other score has. */
function Legend() {
  return (
    <ul className="flex flex-col gap-1">
      {SIGNS.map(({ path, words, tone, isLine }) => (
        <li key={words} className="flex items-center gap-3">
          <svg width="24" height="20" viewBox="0 0 24 20" aria-hidden>
            <path d={path} fill={isLine ? 'none' : tone} stroke={isLine ? tone : 'none'} strokeWidth="1.6" />
          </svg>
          {words}
        </li>
      ))}
      <li>In the bow lane the hair is shared out; where a stroke is broken in red it would run out at even speed.</li>
      <li>
        <i>as A 5–8</i> over a bar: it takes up those bars, and an edit of their notes is made in both places.
      </li>
      <li>
        In the fingers’ row × is a note out of reach; in the margin a circle is a problem, a triangle asks for care.
      </li>
    </ul>
  );
}
