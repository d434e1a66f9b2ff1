const STORED = 'fleet-rail.tab';

/**
 * An id of this tab that outlives a reload. It is held as a lock while the tab lives, so that other
 * tabs can tell a draft that is being worked on from one that was left behind.
 */
async function claimTabId(): Promise<string> {
  const cached = sessionStorage.getItem(STORED);
  if (cached !== null && (await hold(cached))) return cached;
  const fresh = crypto.randomUUID();
  await hold(fresh);
  sessionStorage.setItem(STORED, fresh);
  return fresh;
}

/** The ids of tabs that are open now. */
export async function livingTabs(): Promise<Set<string>> {
  const { held } = await navigator.locks.query();
  return new Set(held?.flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : [])));
}

const PREFIX = 'fleet-rail.tab.';
let holding: Promise<string> | null = null;

/** This tab's id, claimed once a page load. */
export function tabId(): Promise<string> {
  holding ??= claimTabId();
  return holding;
}

function hold(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(PREFIX + id, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      // Held for as long as the page is there.
      return lock === null ? undefined : new Promise(() => undefined);
    });
  });
}
