import { createGlobalStyle } from 'styled-components';
import { TEXT_FONT } from './fonts';

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  html { color-scheme: ${({ theme }) => (theme.mode === 'day' ? 'light' : 'dark')}; }
  body {
    background: ${({ theme }) => theme.paper};
    color: ${({ theme }) => theme.ink};
    font: 13px/1.4 ${TEXT_FONT};
    font-variant-numeric: tabular-nums;
    -webkit-font-smoothing: antialiased;
  }
  a { color: inherit; text-underline-offset: 2px; }
  button, input, select { font: inherit; color: inherit; }
  h1, h2, h3, p { margin: 0; font-weight: inherit; font-size: inherit; }
  :focus { outline: none; }
  :focus-visible, [data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.ink};
    outline-offset: 1px;
  }
`;
