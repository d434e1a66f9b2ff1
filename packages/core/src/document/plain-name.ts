/** Line breaks and tabs: words around one stay apart. */
const BREAKS = /[\t-\r\u0085\u2028\u2029]+/gu;
/** Control characters, and marks that turn the direction of all that follows (Unicode Annex 9). */
const HIDDEN = /[\p{Cc}\u061C\u200E\u200F\u202A-\u202E\u2066-\u2069]/gu;

/** A name without characters that are not seen but change how a line, a file name or a terminal shows it. */
export const plainName = (name: string): string => name.replace(BREAKS, ' ').replace(HIDDEN, '');
