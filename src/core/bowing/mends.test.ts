import type { NoteEvent, Part, TuneEvent } from '#core/tune';
import { type Link, type Tune, unroll, type Unrolled } from '#core/tune';
import { bar, note, rest, seeded, takenUpAgain, tune } from '../testing/tunes';
import { setLinks } from './gestures';
import { bowingLedger } from './ledger';
import { type RoundMend, roundMends } from './mends';
import { bowNotes, entryNote, startOf } from './strokes';

function ledgerOf(t: Tune) {
  const unrolled = unroll(t);
  const bowed = bowNotes(unrolled.notes, startOf(t, unrolled).direction);
  return { unrolled, bowed, ledger: bowingLedger(unrolled, bowed) };
}

/** Small forms with parts, endings, pickups, rests, hooks, retakes and links for single passes. */
function smallForm(seed: number): Tune {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)]!;
  const names = ['A', 'B', 'C'].slice(0, 1 + Math.floor(random() * 3));
  let count = 0;
  const fill = (events: TuneEvent[], notes: number) => {
    for (let k = 0; k < notes; k++) {
      count += 1;
      if (random() < 0.06) events.push(rest(`r${count}`, 1));
      const more: Partial<NoteEvent> = random() < 0.05 ? { linkOnPass: { 2: pick<Link>(['change', 'slur']) } } : {};
      const link = pick<Link>(['change', 'change', 'slur', 'hook', 'retake']);
      events.push(note(`n${count}`, pick(['D4', 'A4', 'E5']), pick([1, 1, 2]), { link, ...more }));
    }
  };
  const parts = names.map((name): Part => {
    const events: TuneEvent[] = [bar(`${name}1`)];
    if (random() < 0.3) {
      fill(events, 1);
      events.push(bar(`${name}2`));
    }
    fill(events, 2 + Math.floor(random() * 3));
    if (random() < 0.4)
      for (const play of [1, 2]) {
        events.push(bar(`${name}e${play}`, { ending: true, onPlays: [play] }));
        fill(events, 1 + Math.floor(random() * 2));
      }
    return { name, events };
  });
  const form = Array.from({ length: 2 + Math.floor(random() * 5) }, () => pick(names));
  return tune(parts, { form: [...names, ...form], meter: { num: 2, den: 4 } });
}

/** Counts turns by hand: whether a tune comes round with some links changed. */
function comesRound(unrolled: Unrolled, changed: ReadonlyMap<string, Link>): boolean {
  const { notes, passes } = unrolled;
  let turns = 0;
  const turnsUpTo = notes.map(({ note: written, pass }, i) => {
    const link =
      changed.get(`${written.id}@${pass}`) ?? changed.get(written.id) ?? written.linkOnPass?.[pass] ?? written.link;
    if (i > 0 && (link === 'change' || link === 'start')) turns += 1;
    return turns;
  });
  const entries = passes.map(({ part }, i) => ({ part, entry: entryNote(unrolled, i) }));
  const isEven = (count: number) => count % 2 === 0;
  const again = takenUpAgain(unrolled);
  const { note: first, pass: firstPass } = notes[again]!;
  const back =
    changed.get(`${first.id}@${firstPass}`) ?? changed.get(first.id) ?? first.linkOnPass?.[firstPass] ?? first.link;
  return (
    isEven(turns - turnsUpTo[again]! + (back === 'change' || back === 'start' ? 1 : 0)) &&
    entries.every(({ part, entry }) => {
      const first = entries.find((other) => other.part === part)!.entry;
      return entry === null || first === null || isEven(turnsUpTo[entry]! - turnsUpTo[first]!);
    })
  );
}

/** Every link that may be changed, on all passes or where one begins on that alone, found by looking at the tune as it is played. */
function allEdits({ notes }: Unrolled): [string, Link][] {
  const onOnePass = notes.flatMap(({ index, note: written, pass, passIndex, restBefore }): [string, Link][] => {
    const before = notes[index - 1];
    const isRepeated = notes.filter((other) => other.note.id === written.id).length > 1;
    if (!before || before.passIndex === passIndex || written.linkOnPass || !isRepeated) return [];
    const turns = written.link === 'change' || written.link === 'start';
    const canLift = restBefore.n > 0 || before.duration.n / before.duration.d >= 1 / 4;
    return turns && canLift ? [[`${written.id}@${pass}`, 'retake']] : [];
  });
  const onAll = notes.flatMap(({ index, note: written, pass, passIndex, restBefore }): [string, Link][] => {
    const isFirst = notes.findIndex((other) => other.note.id === written.id) === index;
    if (index === 0 || !isFirst || written.linkOnPass) return [];
    const before = notes[index - 1]!;
    const link = written.linkOnPass?.[pass] ?? (written.link === 'start' ? 'change' : written.link);
    if (link !== 'change') return [[written.id, 'change']];
    const canLift = restBefore.n > 0 || before.duration.n / before.duration.d >= 1 / 4;
    return [
      ...(canLift ? [[written.id, 'retake'] as [string, Link]] : []),
      ...(before.passIndex === passIndex ? [[written.id, 'slur'] as [string, Link]] : []),
    ];
  });
  return [...onAll, ...onOnePass];
}

/** A tune with edits of a mend made. */
const withEdits = (t: Tune, edits: RoundMend['edits']) =>
  edits.reduce((edited, { id, link, pass }) => setLinks(edited, new Map([[id, link]]), pass), t);
const nameOf = ({ id, pass }: RoundMend['edits'][number]) => (pass === null ? id : `${id}@${pass}`);
const noteOf = (name: string) => name.split('@')[0];

test('one and two edits that bring a tune round are those that trying all of them finds, on 500 small forms', () => {
  const counts = { flips: 0, one: 0, two: 0, none: 0 };
  for (let seed = 1; seed <= 500; seed++) {
    const t = smallForm(seed);
    const { unrolled, bowed, ledger } = ledgerOf(t);
    if (ledger.comesRound) continue;
    counts.flips += 1;
    const edits = allEdits(unrolled);
    const mends = (chosen: readonly [string, Link][]) => comesRound(unrolled, new Map(chosen));
    const words = (chosen: readonly (readonly [string, Link])[]) =>
      chosen
        .map(([id, link]) => `${id} ${link === 'hook' ? 'slur' : link}`)
        .sort()
        .join(' + ');
    const ones = edits.filter((edit) => mends([edit])).map((edit) => words([edit]));
    const twos =
      ones.length > 0
        ? []
        : edits.flatMap((one, i) =>
            edits
              .slice(i + 1)
              .flatMap((two) => (noteOf(one[0]) !== noteOf(two[0]) && mends([one, two]) ? [words([one, two])] : [])),
          );
    const found = roundMends({ unrolled, bowed, part: ledger.flippedParts[0] ?? null, placeOf: () => 'D' });
    for (const { edits: chosen, mendsAll } of found.slice(0, 2))
      if (mendsAll) expect(ledgerOf(withEdits(t, chosen)).ledger.comesRound).toBe(true);
    const all = found
      .filter(({ mendsAll }) => mendsAll)
      .map((mend) => words(mend.edits.map((edit) => [nameOf(edit), edit.link] as const)));
    counts[ones.length > 0 ? 'one' : twos.length > 0 ? 'two' : 'none'] += 1;
    if (ones.length > 0) expect([seed, [...all].sort()]).toEqual([seed, [...ones].sort()]);
    else {
      expect([seed, all.length]).toEqual([seed, Math.min(12, twos.length)]);
      for (const pair of all) expect(twos).toContain(pair);
    }
  }
  expect(counts.flips).toBeGreaterThanOrEqual(150);
  expect(counts.two).toBeGreaterThanOrEqual(50);
  expect(counts.none).toBeGreaterThanOrEqual(25);
});

test('where nothing brings all round, what is offered at least mends its part', () => {
  let tried = 0;
  for (let seed = 1; seed <= 500; seed++) {
    const t = smallForm(seed);
    const { unrolled, bowed, ledger } = ledgerOf(t);
    for (const part of ledger.flippedParts)
      for (const { edits, mendsAll } of roundMends({ unrolled, bowed, part, placeOf: () => 'D' })) {
        if (mendsAll) continue;
        const after = ledgerOf(withEdits(t, edits)).ledger;
        expect([seed, after.flippedParts.includes(part)]).toEqual([seed, false]);
        tried += 1;
      }
  }
  expect(tried).toBeGreaterThan(20);
});

test('mends are ranked by what they disturb: on the beat, over strings and in a pattern come last', () => {
  const odd = tune(
    [{ name: 'A', events: [bar('b'), ...['D4', 'D4', 'A4', 'D4', 'D4'].map((p, i) => note(`n${i}`, p, 1))] }],
    {
      form: ['A', 'A'],
    },
  );
  const { unrolled, bowed } = ledgerOf(odd);
  const placeOf = ({ pitch }: NoteEvent) => pitch.letter;
  const mends = roundMends({ unrolled, bowed, part: 'A', placeOf, keepsPattern: (id) => id === 'n1' });
  expect(mends.map(({ edits: [edit] }) => [edit!.id, edit!.disturbs.join(' ')])).toEqual([
    ['n1', 'pattern-broken'],
    ['n4', 'accent-moved'],
    ['n3', 'crossing-in-slur'],
    ['n2', 'crossing-in-slur accent-moved'],
  ]);
});
