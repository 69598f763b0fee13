const KEY = 'morrin.theme';

export type Theme = 'day' | 'evening';

/** The reader's own choice, else the system's. */
export function currentTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  if (kept === 'day' || kept === 'evening') return kept;
  return window.matchMedia('(prefers-color-scheme: dark)').matches ? 'evening' : 'day';
}

export function showTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  showTheme(theme);
}
