import { ArrowLeftRight, Check } from 'lucide-react';
import type { ReactNode } from 'react';
import { formatFraction } from '#core/base';
import { STROKE_GESTURES, type StrokeGesture } from '#core/entry';
import { StrokeSign } from '../ui/signs';
import { ENTRY_WAYS, type EntryState, type EntryWay } from './entryState';

interface EntryStripProps {
  readonly entry: EntryState;
  readonly onKey: (key: string) => boolean;
  readonly onWay: (way: EntryWay) => void;
  readonly onEnd: () => void;
}

const WAYS: Record<EntryWay, string> = { calls: 'calls', letters: 'letters', staff: 'staff' };
const GESTURE_KEYS: Record<StrokeGesture, string> = { one: 'o', pair: 'p', three: 't', held: 'h' };
const GESTURE_WORDS: Record<StrokeGesture, string> = {
  one: 'one note in a stroke',
  pair: 'two notes in a stroke',
  three: 'three notes in a stroke',
  held: 'one note as long as a pair',
};
const UNITS: Record<string, string> = {
  '2': 'breves',
  '1': 'whole notes',
  '1/2': 'half notes',
  '1/4': 'quarters',
  '1/8': 'eighths',
  '1/16': 'sixteenths',
  '1/32': 'thirty-seconds',
  '1/64': 'sixty-fourths',
};
const HELP: Record<EntryWay, string> = {
  calls: 'string and finger: D 2, or 2 alone; − and + lean the finger',
  letters: 'a to g; ’ and , move an octave; + and − sharpen and flatten',
  staff: 'up and down move the pencil, space writes; or press the staff',
};

/** The rhythm at the caret, as gestures of the bow into which the notes fall. */
export function EntryStrip({ entry, onKey, onWay, onEnd }: EntryStripProps) {
  const { rhythm, way } = entry;
  const unit = UNITS[formatFraction(rhythm.unit)] ?? formatFraction(rhythm.unit);
  return (
    <div
      className="flex flex-wrap items-center gap-x-2 gap-y-1 py-0.5"
      role="toolbar"
      aria-label="Entering notes"
      data-entry={way}
      // The field keeps the focus: what is pressed here only changes what the next key does.
      onMouseDown={(event) => event.preventDefault()}
    >
      <div className="flex" role="group" aria-label="Way of entry">
        {ENTRY_WAYS.map((name) => (
          <Choice key={name} isOn={way === name} label={`by ${WAYS[name]} (W)`} onClick={() => onWay(name)}>
            {WAYS[name]}
          </Choice>
        ))}
      </div>
      <div className="flex" role="group" aria-label="Stroke">
        {(Object.keys(STROKE_GESTURES) as StrokeGesture[]).map((gesture) => (
          <Choice
            key={gesture}
            isOn={rhythm.gesture === gesture}
            label={`${GESTURE_WORDS[gesture]} (${GESTURE_KEYS[gesture].toUpperCase()})`}
            onClick={() => onKey(GESTURE_KEYS[gesture])}
          >
            <StrokeSign gesture={gesture} filled={rhythm.gesture === gesture ? rhythm.filled : 0} />
          </Choice>
        ))}
      </div>
      <div className="flex items-center" role="group" aria-label="Length">
        <Choice label="shorter (K)" onClick={() => onKey('k')}>
          shorter
        </Choice>
        <span className="px-1 font-bold whitespace-nowrap text-ink" aria-live="polite">
          {rhythm.dotted ? 'dotted ' : ''}
          {unit}
        </span>
        <Choice label="longer (L)" onClick={() => onKey('l')}>
          longer
        </Choice>
        <Choice isOn={rhythm.dotted} label="dotted (.)" onClick={() => onKey('.')}>
          dot
        </Choice>
        <Choice isOn={rhythm.tuplet !== null} label="tuplet (U)" onClick={() => onKey('u')}>
          {rhythm.tuplet ? `${rhythm.tuplet.notes} in ${rhythm.tuplet.inTimeOf}` : 'tuplet'}
        </Choice>
      </div>
      <div className="flex" role="group" aria-label="Next">
        <Choice label="rest (R)" onClick={() => onKey('r')}>
          rest
        </Choice>
        <Choice label="tie to the next (J)" onClick={() => onKey('j')}>
          tie
        </Choice>
        <Choice isOn={entry.next === 'grace'} label="the next is a grace note (N)" onClick={() => onKey('n')}>
          grace{entry.graces.length > 0 ? ` ${entry.graces.length}` : ''}
        </Choice>
        <Choice isOn={entry.next === 'chord'} label="the next joins the chord (&)" onClick={() => onKey('&')}>
          chord
        </Choice>
        <Choice label="bar line here (|)" onClick={() => onKey('|')}>
          bar line
        </Choice>
        <Choice label="this bar: first, second, third ending, none ([)" onClick={() => onKey('[')}>
          ending
        </Choice>
        <Choice label="new part (X)" onClick={() => onKey('x')}>
          new part
        </Choice>
        <Choice isOn={entry.overwrite} label="write over what follows (I)" onClick={() => onKey('i')}>
          <ArrowLeftRight size={15} aria-hidden /> over
        </Choice>
        <Choice label="done (Esc)" onClick={onEnd}>
          <Check size={15} aria-hidden /> done
        </Choice>
      </div>
      <p
        className={`text-fine ${entry.fault ? 'text-madder' : 'text-muted'}`}
        role={entry.fault ? 'alert' : undefined}
        data-entry-help
      >
        {entry.fault ?? (entry.place ? `${entry.place}: and the finger` : HELP[way])}
      </p>
    </div>
  );
}

function Choice(props: {
  readonly isOn?: boolean;
  readonly label: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  const { isOn, label, onClick, children } = props;
  return (
    <button
      type="button"
      aria-pressed={isOn}
      aria-label={label}
      title={label}
      onClick={onClick}
      className="flex h-8 items-center gap-1 rounded-md px-1.5 text-hint whitespace-nowrap text-muted hover:bg-band hover:text-ink aria-pressed:bg-band aria-pressed:font-bold aria-pressed:text-woad"
    >
      {children}
    </button>
  );
}
