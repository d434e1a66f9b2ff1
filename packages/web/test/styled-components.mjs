// The package's build for Node keeps its default export one level down; a bundler resolves that, the tests' runner does not.
import built from '../../../node_modules/styled-components/dist/styled-components.cjs.js';

export const { ThemeContext, ThemeProvider, createGlobalStyle, css, keyframes, styled, useTheme } = built;
export default styled;
