import { useEffect, useState } from 'react';
import { memory } from '../platform/memory';

type Theme = 'dark' | 'light';
const KEY = 'estrella.theme';

/** Night or paper; remembered by the browser. */
export function useTheme(): [Theme, () => void] {
  const [theme, setTheme] = useState<Theme>(() => (memory.getItem(KEY) === 'light' ? 'light' : 'dark'));
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
    memory.setItem(KEY, theme);
  }, [theme]);
  return [theme, () => setTheme((t) => (t === 'dark' ? 'light' : 'dark'))];
}
