import { setLinks } from '#core/bowing';
import { sameMusic } from '#core/editing';
import { STRAIGHT } from '#core/tempo';
import { type Link, mapEvents, mapNotes, type NoteEvent, type NoteMark, type Tune, writtenNotes } from '#core/tune';
import { DIRECTIVES, type MorrinDirectives, type WrittenTune } from './directiveTable';
import type { PlainScore } from './plainScore';

/** What of a tune's directives changes notes; its parts and form are put together before. */
export function applyDirectives(tune: Tune, { start, lilt, links, reuses, notes: items }: MorrinDirectives): Tune {
  let edited: Tune = start ? { ...tune, start } : tune;
  if (lilt && lilt !== STRAIGHT.name) edited = { ...edited, lilt };
  const notes = links.length + items.length > 0 ? writtenNotes(tune) : [];
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
  for (const { note: number, own } of items) {
    const note = notes[number - 1];
    if (note) more.set(note.id, { ...more.get(note.id), ...own({ ...note, ...more.get(note.id) }) });
  }
  return mapNotes(edited, (note) => {
    const own = more.get(note.id);
    return own ? { ...note, ...own } : note;
  });
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
  const bars = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'bar');
  const written: WrittenTune = { tune, notes: writtenNotes(tune), bars, plain, said };
  return Object.entries(DIRECTIVES).flatMap(([name, { write }]) => {
    const items = write(written);
    return items.length > 0 ? [`%%morrin-${name} ${items.join(' ')}`] : [];
  });
}
