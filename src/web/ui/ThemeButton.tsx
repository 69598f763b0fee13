import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Button, SignButton } from './Button';
import { chooseTheme, currentTheme, showTheme } from './theme';

/** From day to evening and back; `inWords` where there is room for more than a sign. */
export function ThemeButton({
  inWords = false,
  className,
}: {
  readonly inWords?: boolean;
  readonly className?: string;
}) {
  const [theme, setTheme] = useState(currentTheme);
  useEffect(() => showTheme(theme), [theme]);
  const other = theme === 'day' ? 'evening' : 'day';
  const change = () => {
    chooseTheme(other);
    setTheme(other);
  };
  const label = `To the ${other} theme`;
  const Sign = theme === 'day' ? Moon : Sun;
  if (!inWords)
    return (
      <SignButton label={label} className={className} onClick={change}>
        <Sign size={18} aria-hidden />
      </SignButton>
    );
  return (
    <Button look="small" className={className} onClick={change}>
      {label}
    </Button>
  );
}
