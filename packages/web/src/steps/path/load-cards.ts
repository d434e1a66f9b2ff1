/** Cards of the path panel that are shown only while something is made: all of them together are small. */
export const loadCards = () => import('./all-cards');
