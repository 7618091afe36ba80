import { Moon, Sun } from 'lucide-react';
import { useTheme } from './theme.ts';

export function ThemeButton() {
  const [theme, toggle] = useTheme();
  return (
    <button
      type="button"
      className="w-7 h-7 text-ink-2 inline-flex items-center justify-center"
      aria-label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
      onClick={toggle}
    >
      {theme === 'dark' ? <Sun className="ic" aria-hidden="true" /> : <Moon className="ic" aria-hidden="true" />}
    </button>
  );
}
