import { type Fraction, fraction, seeded } from '#core/base';

/** So that a failing case can be run again. */
export { seeded };
import { parsePitch } from '#core/pitch';
import type { BarEvent, Link, NoteEvent, Part, RestEvent, Tune, TuneEvent, Unrolled } from '#core/tune';
import { STANDARD_TUNING } from '#core/tuning';

/** A note for tests: `note('n1', 'A4', 1)` lasts one eighth. */
export function note(id: string, pitch: string, eighths: number, more: Partial<NoteEvent> = {}): NoteEvent {
  const sixtyFourths = Math.round(eighths * 8);
  return { kind: 'note', id, pitch: parsePitch(pitch)!, duration: fraction(sixtyFourths, 64), link: 'change', ...more };
}

export function rest(id: string, eighths: number): RestEvent {
  return { kind: 'rest', id, duration: fraction(Math.round(eighths * 8), 64) };
}

export function bar(id: string, more: Partial<BarEvent> = {}): BarEvent {
  return { kind: 'bar', id, ...more };
}

/**
 * A part from a line of notes: `A4 | d2` style with lengths in eighths after a colon, `(`…`)` around slurs, `|` at
 * bars, `z:2` for rests. `part('A', 'D4:2 (E4 F#4) | G4:4')`.
 */
export function part(name: string, line: string): Part {
  const events: TuneEvent[] = [bar(`${name}b1`)];
  let bars = 1;
  let notes = 0;
  let isOpen = false;
  let joins = false;
  for (const token of line.trim().split(/\s+/)) {
    if (token === '|') {
      events.push(bar(`${name}b${++bars}`));
      continue;
    }
    const [, open, pitch, length, close] = /^(\(?)([A-Ga-g][#b]*\d|z)(?::([\d.]+))?(\)?)$/.exec(token)!;
    const id = `${name}${++notes}`;
    if (open) isOpen = true;
    if (pitch === 'z') events.push(rest(id, Number(length ?? 1)));
    else {
      const link: Link = joins ? 'slur' : 'change';
      events.push(note(id, pitch!, Number(length ?? 1), { link }));
      joins = isOpen && !close;
    }
    if (close) {
      isOpen = false;
      joins = false;
    }
  }
  return { name, events };
}

export function tune(parts: readonly Part[], more: Partial<Tune> = {}): Tune {
  const first = parts[0]?.events.find((event) => event.kind === 'note');
  return {
    schemaVersion: 1,
    title: 'A tune for a test',
    danceType: 'reel',
    meter: { num: 4, den: 4 },
    key: { letter: 'D', alter: 0, mode: 'major' },
    tuning: STANDARD_TUNING,
    tempoBpm: null,
    start: null,
    form: parts.map(({ name }) => name),
    ...more,
    parts: parts.map((item) => ({
      ...item,
      events: item.events.map((event) => (event === first ? { ...event, link: 'start' as const } : event)),
    })),
  };
}

/**
 * Index of the note at which a tune is taken up again, read off its bars: past a pickup whose place the last bar leaves no
 * room for, the first note that sounds beyond the pickup.
 */
export function takenUpAgain({ notes, bars }: Unrolled): number {
  const [first, last] = [bars[0]!, bars[bars.length - 1]!];
  const size = ({ n, d }: Fraction) => n / d;
  const isFull = size(last.duration) > last.meter.num / last.meter.den - 1e-9;
  if (!first.isPickup || !isFull) return 0;
  const end = size(first.duration);
  return Math.max(
    0,
    notes.findIndex(({ onset, duration }) => size(onset) + size(duration) > end + 1e-9),
  );
}

const LINKS: readonly Link[] = ['change', 'change', 'slur', 'hook', 'retake'];
const PITCHES = ['D4', 'F#4', 'A4', 'B4', 'C#5', 'D5', 'E5', 'G3'];

/** A small random tune: one to three parts, repeats, endings at times, links of all kinds, overrides now and then. */
export function randomTune(seed: number): Tune {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const names = ['A', 'B', 'C'].slice(0, 1 + Math.floor(random() * 3));
  const parts = names.map((name): Part => {
    const events: TuneEvent[] = [];
    let count = 0;
    const fill = (eighths: number) => {
      for (let left = eighths; left > 0;) {
        const length = Math.min(left, pick([1, 1, 1, 2, 3]));
        count += 1;
        if (random() < 0.08) events.push(rest(`${name}r${count}`, length));
        else {
          const override = random() < 0.06 ? { linkOnPass: { 2: pick(LINKS) } } : {};
          events.push(note(`${name}${count}`, pick(PITCHES), length, { link: pick(LINKS), ...override }));
        }
        left -= length;
      }
    };
    const hasPickup = random() < 0.4;
    if (hasPickup) {
      events.push(bar(`${name}p`));
      fill(2);
    }
    for (let k = 0; k < 2; k++) {
      events.push(bar(`${name}b${k}`));
      fill(8);
    }
    const hasEndings = random() < 0.4;
    for (const play of hasEndings ? [1, 2] : [0]) {
      events.push(bar(`${name}e${play}`, hasEndings ? { ending: true, onPlays: [play] } : {}));
      fill(hasPickup ? 6 : 8);
    }
    return { name, events };
  });
  const form = random() < 0.7 ? names.flatMap((name) => [name, name]) : [...names, names[0]!];
  return tune(parts, { form });
}
