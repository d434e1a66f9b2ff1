import 'styled-components';
import type { Theme } from './theme';

declare module 'styled-components' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- the library is extended by an interface
  export interface DefaultTheme extends Theme {}
}
