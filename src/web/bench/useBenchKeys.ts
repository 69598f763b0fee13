import type { Bench } from '../commands/command';
import { commandOfKey } from '../commands/commands';
import { type PageKey, useBodyKeys } from '../ui/useBodyKeys';
import { focusEntry } from './focus';
import type { EntryDeeds } from './useEntry';

/** Answers the keys of the page: those of entry while notes are entered, else the command of the key. */
export function useBenchKeys(bench: Bench, entry: EntryDeeds, isCovered: boolean): (event: PageKey) => void {
  const onKey = (event: PageKey) => {
    if (isCovered || event.defaultPrevented) return;
    const target = event.target as Element;
    const inScore = target.closest('[data-score]') !== null;
    const isTyping = target.closest('input, textarea, select') !== null;
    const isShortcut = event.ctrlKey || event.metaKey || event.altKey;
    if (bench.open.entry && inScore && !isTyping && !isShortcut && event.key !== 'Tab') {
      // The score was pressed while notes are entered: what is typed still goes there.
      if (event.key === 'Escape') entry.end();
      else if (entry.pressKey(event.key)) focusEntry();
      event.preventDefault();
      return;
    }
    const command = commandOfKey(event);
    if (!command || !isHeard(target, event.key, command.isPageWide ?? false)) return;
    if (!command.applies(bench)) return;
    event.preventDefault();
    command.run(bench);
  };
  useBodyKeys(onKey);
  return onKey;
}

/** Whether a key is meant for the bench where the focus is: not what is typed into a field, nor what presses a button. */
function isHeard(target: Element, key: string, isPageWide: boolean): boolean {
  if (isPageWide) return target.closest('input:not([data-entry-field]), textarea, select') === null;
  if (target.closest('[data-score]') === null) return false;
  const presses = key === ' ' || key === 'Enter';
  return target.closest(presses ? 'button, a, input, textarea, select' : 'input, textarea, select') === null;
}
