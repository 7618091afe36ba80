import { Moon, Sun } from 'lucide-react';
import { useTheme } from './theme.ts';

export function ThemeButton() {
  const [theme, toggle] = useTheme();
  return (
    <button type="button" className="sq" aria-label={theme === 'dark' ? 'Light theme' : 'Dark theme'} onClick={toggle}>
      {theme === 'dark' ? <Sun className="ic" aria-hidden="true" /> : <Moon className="ic" aria-hidden="true" />}
    </button>
  );
}
