import { createElement, lazy, useState, type ComponentType } from 'react';

/**
 * A component whose code loads later, and the request for that code. After its code has loaded it renders directly,
 * with its surroundings; before, it suspends.
 */
export function onceLoaded<P extends object>(request: () => Promise<ComponentType<P>>) {
  let loaded: ComponentType<P> | undefined;
  const load = async () => (loaded = await request());
  const Awaited = lazy(async () => ({ default: await load() }));
  function OnceLoaded(props: P) {
    // The choice holds while it is mounted: another component in its place would lose its state.
    const [shown] = useState<ComponentType<P>>(() => loaded ?? Awaited);
    return createElement(shown, props);
  }
  return Object.assign(OnceLoaded, { load });
}
