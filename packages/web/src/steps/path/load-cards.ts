/** What stands in the path panel only while something is being made: all of it, which is little. */
export const loadCards = () => import('./all-cards');
