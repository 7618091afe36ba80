import { Moon, Sun } from 'lucide-react';
import { iconLook, squareLook } from './looks.ts';
import { useTheme } from './theme.ts';

export function ThemeButton() {
  const [theme, toggle] = useTheme();
  return (
    <button
      type="button"
      className={squareLook}
      aria-label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
      onClick={toggle}
    >
      {theme === 'dark' ? (
        <Sun className={iconLook} aria-hidden="true" />
      ) : (
        <Moon className={iconLook} aria-hidden="true" />
      )}
    </button>
  );
}
