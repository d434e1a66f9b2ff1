/** The token under which {@link Settings} are injected. */
export const SETTINGS = Symbol('settings');
