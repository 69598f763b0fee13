/** What of a key event tells its combination. */
export interface PressedKey {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}

/** The combination of a key event, as commands name theirs: `alt+shift+arrowup`. */
export function comboOf(event: PressedKey): string {
  const key = event.key === '=' ? '+' : event.key === 'Backspace' ? 'delete' : event.key.toLowerCase();
  const isSign = key.length === 1 && !/[a-z]/.test(key);
  return [
    ...(event.ctrlKey || event.metaKey ? ['ctrl'] : []),
    ...(event.altKey ? ['alt'] : []),
    ...(event.shiftKey && !isSign ? ['shift'] : []),
    key,
  ].join('+');
}

const SHOWN: Readonly<Record<string, string>> = {
  ctrl: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  arrowup: '↑',
  arrowdown: '↓',
  arrowleft: '←',
  arrowright: '→',
  ' ': 'Space',
  '-': '−',
  escape: 'Esc',
};

/** A combination as a player reads it: `Alt Shift ↑`. */
export function keysShown(combo: string): string {
  return parts(combo)
    .map((key) => SHOWN[key] ?? key[0]!.toUpperCase() + key.slice(1))
    .join(' ');
}

const SPOKEN: Readonly<Record<string, string>> = {
  ctrl: 'Control',
  arrowup: 'ArrowUp',
  arrowdown: 'ArrowDown',
  arrowleft: 'ArrowLeft',
  arrowright: 'ArrowRight',
  ' ': 'Space',
  '+': 'Plus',
};

/** Combinations as `aria-keyshortcuts` takes them. */
export function keysSpoken(combos: readonly string[]): string | undefined {
  if (combos.length === 0) return undefined;
  return combos
    .map((combo) =>
      parts(combo)
        .map((key) => SPOKEN[key] ?? (key.length === 1 ? key : key[0]!.toUpperCase() + key.slice(1)))
        .join('+'),
    )
    .join(' ');
}

/** The plus sign is both a key and what stands between keys. */
function parts(combo: string): string[] {
  return combo === '+' ? ['+'] : combo.endsWith('++') ? [...combo.slice(0, -2).split('+'), '+'] : combo.split('+');
}
