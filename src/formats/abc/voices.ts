import type { AbcElement } from 'abcjs/src/parse/abc_parse.js';
import type { Voice } from '../score';

/** A staff of a line of music, as the parser has it. */
export interface AbcStaff {
  readonly key?: AbcElement;
  readonly meter?: AbcElement;
  readonly voices: readonly AbcElement[][];
}

/** One voice's stretch of a line, with the staff that it stands on. */
export interface VoiceLine {
  readonly staff: AbcStaff;
  readonly elements: readonly AbcElement[];
}

/** The voice at a place, counted through all staves of a line from 0. */
export function staffOfVoice(staves: readonly AbcStaff[], place: number): VoiceLine | null {
  let before = 0;
  for (const staff of staves) {
    const elements = staff.voices[place - before];
    if (elements) return { staff, elements };
    before += staff.voices.length;
  }
  return null;
}

/** All voices with a note, counted from 1 through the staves; named by their `V:` fields where those have names. */
export function listVoices(lines: readonly (readonly AbcStaff[])[], text: string): Voice[] {
  const named = new Map<string, string>();
  for (const [, id, more] of text.matchAll(/(?:^|\[)V:\s*([^\s\]]+)([^\n\]]*)/gm)) {
    const own = /\b(?:name|nm)\s*=\s*"([^"]*)"/.exec(more!)?.[1];
    // A voice is named where it is declared, and only called by its id later.
    if (own || !named.has(id!)) named.set(id!, own || named.get(id!) || `voice ${id}`);
  }
  const names = [...named.values()];
  const counts: number[] = [];
  for (const staves of lines) {
    let place = 0;
    for (const { voices } of staves)
      for (const elements of voices) {
        const notes = elements.filter(
          ({ el_type, pitches }) => el_type === 'note' && (pitches?.length ?? 0) > 0,
        ).length;
        counts[place] = (counts[place] ?? 0) + notes;
        place += 1;
      }
  }
  return counts.flatMap((notes, i) =>
    notes > 0 ? [{ id: String(i + 1), name: names[i] ?? `voice ${i + 1}`, notes }] : [],
  );
}
