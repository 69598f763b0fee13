import { setLinks } from '#core/bowing';
import { sameMusic } from '#core/editing';
import { type Link, type NoteEvent, type NoteMark, type Tune, writtenNotes, mapEvents, mapNotes } from '#core/tune';
import { midiOf } from '#core/pitch';
import { STRAIGHT } from '#core/tempo';
import type { PlainScore } from './plainScore';

import { FREE_LINES, type MorrinDirectives } from './readDirectives';

/** What of a tune's directives changes notes; its parts and form are put together before. */
export function applyDirectives(
  tune: Tune,
  {
    start,
    links,
    places,
    reuses,
    pulses,
    lowMelodies,
    bowLengths,
    drones,
    positions,
    marks,
    lilt,
    free,
  }: MorrinDirectives,
): Tune {
  let edited: Tune = start ? { ...tune, start } : tune;
  if (lilt && lilt !== STRAIGHT.name) edited = { ...edited, lilt };
  const onNotes = [links, places, pulses, lowMelodies, bowLengths, drones, positions, marks, free];
  const notes = onNotes.some((list) => list.length > 0) ? writtenNotes(tune) : [];
  // Links that hold on every pass first: they take those of single passes away.
  for (const pass of [...new Set(links.map((own) => own.pass))].sort((x, y) => (x ?? 0) - (y ?? 0))) {
    const wanted = new Map<string, Link>();
    for (const own of links) {
      const id = notes[own.note - 1]?.id;
      if (own.pass === pass && id !== undefined && (own.note > 1 || (own.pass ?? 1) > 1)) wanted.set(id, own.link);
    }
    edited = setLinks(edited, wanted, pass);
  }
  if (reuses.length > 0) edited = withReuses(edited, reuses);
  const more = new Map<string, Partial<NoteEvent>>();
  const add = (number: number, part: (note: NoteEvent) => Partial<NoteEvent>) => {
    const note = notes[number - 1];
    if (note) more.set(note.id, { ...more.get(note.id), ...part({ ...note, ...more.get(note.id) }) });
  };
  for (const { note, place } of places) add(note, () => ({ place }));
  for (const number of pulses) add(number, ({ marks = [] }) => ({ marks: [...marks, 'pulse'] }));
  for (const number of lowMelodies) add(number, lowestAsMelody);
  for (const { note, ratio } of bowLengths) add(note, () => ({ bowLength: ratio }));
  for (const { note, position } of positions) add(note, () => ({ position }));
  for (const { note, mark } of marks)
    add(note, ({ marks: own = [] }) => (own.includes(mark) ? {} : { marks: [...own, mark] }));
  for (const { note, side } of drones) add(note, () => ({ drone: side }));
  for (const { note, own } of free) add(note, () => own);
  return mapNotes(edited, (note) => {
    const own = more.get(note.id);
    return own ? { ...note, ...own } : note;
  });
}

/** A chord with its lowest note as the melody and the rest above it. */
function lowestAsMelody({ pitch, stops = [] }: NoteEvent): Partial<NoteEvent> {
  const lowest = stops[stops.length - 1];
  return lowest ? { pitch: lowest, stops: [pitch, ...stops.slice(0, -1)] } : {};
}

/** Bars that are said to take up others do so as long as they really have the same notes. */
function withReuses(tune: Tune, reuses: MorrinDirectives['reuses']): Tune {
  const bars = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'bar');
  const taken = new Map<string, string>();
  for (const { bar, of } of reuses) {
    const [here, root] = [bars[bar - 1], bars[of - 1]];
    if (here && root && here !== root && !taken.has(root.id) && sameMusic(tune, here.id, root.id))
      taken.set(here.id, root.id);
  }
  return mapEvents(tune, (event) => {
    const reused = taken.get(event.id);
    return event.kind === 'bar' && reused !== undefined ? { ...event, reuses: reused } : event;
  });
}

/**
 * The directive lines that bring back what plain notation of this tune would lose.
 * @param said marks for which the notation has a sign of its own
 */
export function directiveLines(tune: Tune, plain: PlainScore, said: ReadonlySet<NoteMark>): string[] {
  const notes = writtenNotes(tune);
  const links = notes.flatMap((note, i) => linkItems(note, i + 1, plain));
  const bars = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'bar');
  const numbers = new Map(bars.map(({ id }, i) => [id, i + 1]));
  const reuses = bars.flatMap(({ reuses: root }, i) => (root === undefined ? [] : [`${i + 1}:${numbers.get(root)}`]));
  const places = notes.flatMap(({ place }, i) => (place ? [`${i + 1}:${place}`] : []));
  const pulses = notes.flatMap(({ marks }, i) => (marks?.includes('pulse') ? [`${i + 1}`] : []));
  const lowMelodies = notes.flatMap(({ pitch, stops }, i) =>
    stops?.[0] && midiOf(stops[0]) > midiOf(pitch) ? [`${i + 1}`] : [],
  );
  const bowLengths = notes.flatMap(({ bowLength }, i) => (bowLength === undefined ? [] : [`${i + 1}:${bowLength}`]));
  const positions = notes.flatMap(({ position }, i) => (position === undefined ? [] : [`${i + 1}:${position}`]));
  const marks = notes.flatMap(({ marks = [] }, i) =>
    marks.filter((mark) => mark !== 'pulse' && !said.has(mark)).map((mark) => `${i + 1}:${mark}`),
  );
  const drones = notes.flatMap(({ drone }, i) => (drone ? [`${i + 1}:${drone}`] : []));
  const plays = bars.flatMap(({ onPlays, ending }, i) => {
    const part = tune.parts.find(({ events }) => events.includes(bars[i]!))!;
    const isSaid = plain.bracketed.has(part.name) && (ending || plain.plays !== null);
    return onPlays === undefined || isSaid ? [] : [`${i + 1}:${onPlays.join(',')}${ending ? 'e' : ''}`];
  });
  return [
    ...(plain.plays
      ? []
      : [
          `%%morrin-parts ${JSON.stringify(tune.parts.map(({ name }) => name))}`,
          `%%morrin-form ${JSON.stringify(tune.form)}`,
        ]),
    ...(plays.length > 0 ? [`%%morrin-plays ${plays.join(' ')}`] : []),
    ...(tune.start ? [`%%morrin-start ${tune.start}`] : []),
    ...(links.length > 0 ? [`%%morrin-links ${links.join(' ')}`] : []),
    ...(places.length > 0 ? [`%%morrin-places ${places.join(' ')}`] : []),
    ...(pulses.length > 0 ? [`%%morrin-pulse ${pulses.join(' ')}`] : []),
    ...(lowMelodies.length > 0 ? [`%%morrin-melody ${lowMelodies.join(' ')}`] : []),
    ...(bowLengths.length > 0 ? [`%%morrin-bow ${bowLengths.join(' ')}`] : []),
    ...(drones.length > 0 ? [`%%morrin-drones ${drones.join(' ')}`] : []),
    ...(positions.length > 0 ? [`%%morrin-positions ${positions.join(' ')}`] : []),
    ...(marks.length > 0 ? [`%%morrin-marks ${marks.join(' ')}`] : []),
    ...(tune.lilt ? [`%%morrin-lilt ${tune.lilt}`] : []),
    ...(Object.keys(FREE_LINES) as (keyof typeof FREE_LINES)[]).flatMap((name) => {
      const { key } = FREE_LINES[name];
      const items = notes.flatMap((note, i) => (note[key] === undefined ? [] : [`${i + 1}:${note[key]}`]));
      return items.length > 0 ? [`%%morrin-${name} ${items.join(' ')}`] : [];
    }),
    ...(reuses.length > 0 ? [`%%morrin-reuse ${reuses.join(' ')}`] : []),
  ];
}

/** Links that the slurs do not say: the note's own, then those of single passes. */
function linkItems(note: NoteEvent, number: number, plain: PlainScore): string[] {
  const isSaid = plain.links.get(note.id) === note.link;
  const own = isSaid ? [] : [`${number}:${note.link}`];
  // A link that is said anew takes those of single passes away.
  const read = isSaid ? (plain.linksOnPass.get(note.id) ?? {}) : {};
  const wanted = note.linkOnPass ?? {};
  const passes = [...new Set([...Object.keys(read), ...Object.keys(wanted)])].map(Number).sort((a, b) => a - b);
  return [
    ...own,
    ...passes.flatMap((pass) => {
      const link = wanted[pass] ?? note.link;
      return link === (read[pass] ?? note.link) ? [] : [`${number}@${pass}:${link}`];
    }),
  ];
}
