import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { ThemeProvider } from 'styled-components';
import { GlobalStyle } from './global-style';
import { DAY, NIGHT } from './theme';

const STORED = 'fleet-rail.theme';
const Switch = createContext<() => void>(() => undefined);

/** Day or night for everything inside, remembered on this machine. */
export function DayAndNight({ children }: { children: ReactNode }) {
  const [mode, setMode] = useState(() => (localStorage.getItem(STORED) === 'night' ? 'night' : 'day'));
  const swap = useCallback(() => {
    setMode((before) => {
      const next = before === 'day' ? 'night' : 'day';
      localStorage.setItem(STORED, next);
      return next;
    });
  }, []);
  const theme = useMemo(() => (mode === 'day' ? DAY : NIGHT), [mode]);
  return (
    <ThemeProvider theme={theme}>
      <GlobalStyle />
      <Switch.Provider value={swap}>{children}</Switch.Provider>
    </ThemeProvider>
  );
}

/** Swaps day and night. */
export const useSwapTheme = () => useContext(Switch);
