import { type Bench, runCommand } from '../commands/command';
import { commandOfKey } from '../commands/commands';
import { isForPage, usePageKeys } from '../ui/usePageKeys';
import { focusEntry, focusScore } from './focus';
import type { EntryDeeds } from './useEntry';

/** Answers the keys of the page: those of entry while notes are entered, else the command of the key. */
export function useBenchKeys(bench: Bench, entry: EntryDeeds, isCovered: boolean): void {
  usePageKeys((event) => {
    if (isCovered || event.defaultPrevented || !isForPage(event)) return;
    const target = event.target as Element;
    const isShortcut = event.ctrlKey || event.metaKey || event.altKey;
    const inScore = target.closest('[data-score]') !== null;
    const isTyping = target.closest('[data-entry-field]') !== null;
    if (bench.open.entry && inScore && !isTyping && !isShortcut && event.key !== 'Tab') {
      // The score was pressed while notes are entered: what is typed still goes there.
      if (event.key === 'Escape') entry.end();
      else if (entry.pressKey(event.key)) focusEntry();
      event.preventDefault();
      return;
    }
    const command = commandOfKey(event);
    if (!command || !command.applies(bench)) return;
    // While notes are entered, keys without a modifier are what is entered.
    if (bench.open.entry && !command.isPageWide) return;
    event.preventDefault();
    runCommand(command, bench);
    // Whoever walks through the score by keys is in it from then on, and hears its notes.
    if (command.isWalk && !inScore) requestAnimationFrame(focusScore);
  });
}
