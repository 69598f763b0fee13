import type { BookCount, BulkDeed } from '#contract/book';
import { counted } from './plural';

const tunes = (count: number) => counted(count, 'tune');

/** `13 tunes; 3 do not come round, 1 breaks below its tempo`. */
export function summaryWords(count: BookCount | undefined, isSearching: boolean): string {
  if (!count || (count.tunes === 0 && !isSearching)) return '';
  const { notRound, short } = count;
  const found = isSearching ? `${tunes(count.tunes)} found` : tunes(count.tunes);
  if (count.tunes === 0) return found;
  const flips = `${counted(notRound, 'does', 'do')} not come round`;
  return `${found}; ${flips}, ${counted(short, 'breaks', 'break')} below ${short === 1 ? 'its' : 'their'} tempo`;
}

/** What a change did, in words. */
export function deedWords(deed: BulkDeed, changed: number): string {
  if (changed === 0) return 'Nothing to change.';
  switch (deed.kind) {
    case 'tag':
      return `${tunes(changed)} tagged “${deed.tag}”.`;
    case 'untag':
      return `“${deed.tag}” removed from ${tunes(changed)}.`;
    case 'practised':
      return `${tunes(changed)} practised today.`;
    case 'remove':
      return `${tunes(changed)} removed from the book.`;
    case 'bring-back':
      return `${tunes(changed)} back in the book.`;
  }
}
