import type { Voice } from '../score';
import { child, childrenOf, childText, type XmlElement } from './xml';

/** Notes that sound in a voice of their own time: no rest, no grace note, no further note of a chord. */
function isSounding(note: XmlElement): boolean {
  return child(note, 'pitch') !== undefined && !child(note, 'grace') && !child(note, 'chord') && !child(note, 'cue');
}

export const voiceOf = (note: XmlElement): string => childText(note, 'voice') || '1';

/** The voices of a score in the order of the page, those without a note left out. */
export function listVoices(root: XmlElement): Voice[] {
  const names = new Map(
    childrenOf(child(root, 'part-list') ?? root, 'score-part').map((part) => [
      part.attributes.id ?? '',
      childText(part, 'part-name') || part.attributes.id || 'part',
    ]),
  );
  return childrenOf(root, 'part').flatMap((part) => {
    const counts = new Map<string, number>();
    for (const measure of childrenOf(part, 'measure'))
      for (const note of childrenOf(measure, 'note'))
        if (isSounding(note)) counts.set(voiceOf(note), (counts.get(voiceOf(note)) ?? 0) + 1);
    const id = part.attributes.id ?? '';
    const name = names.get(id) ?? id;
    return [...counts].map(([voice, notes]) => ({
      id: `${id}/${voice}`,
      name: counts.size > 1 ? `${name}, voice ${voice}` : name,
      notes,
    }));
  });
}
