/** Light, dark, or as the system says; kept on this machine. */
export type Theme = 'light' | 'dark' | 'system';
const KEY = 'ursprung:theme';

const systemDark = () => window.matchMedia('(prefers-color-scheme: dark)');

export const currentTheme = (): Theme => (localStorage.getItem(KEY) as Theme | null) ?? 'system';

export function applyTheme(theme: Theme = currentTheme()): void {
  localStorage.setItem(KEY, theme);
  const dark = theme === 'dark' || (theme === 'system' && systemDark().matches);
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
}

export function followSystem(): void {
  systemDark().addEventListener('change', () => applyTheme());
}
