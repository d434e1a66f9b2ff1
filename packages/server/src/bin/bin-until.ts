/** Days that a deleted shot can be brought back. */
const DAYS = 30;

/** When a shot that is deleted now goes for good. */
export const binUntil = (now: Date): string => new Date(now.getTime() + DAYS * 86_400_000).toISOString();
