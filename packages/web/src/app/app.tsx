import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { openAhead } from '../api/opened-ahead';
import { panelOf, Stage } from './step-line/panels';
import { nextTask } from '../ui/next-task';
import { DayAndNight } from '../ui/theme/theme-provider';
import { CrashGuard } from '../ui/crash-guard';
import { Notices } from '../ui/notices';

const loadDesk = () => import('../desk');
const loadShots = () => import('./shots/shots-page');
const PoolPage = lazy(async () => ({ default: (await import('./pool/pool-page')).PoolPage }));
const DeskPage = lazy(async () => ({ default: (await loadDesk()).DeskPage }));
const ShotsPage = lazy(async () => ({ default: (await loadShots()).ShotsPage }));

/**
 * Code and data of an address are requested at once, not one after the other as each is mounted; each in a task of
 * its own, since seventy files take a browser some time.
 */
async function loadAhead(address: string): Promise<void> {
  if (address.startsWith('/pool')) return;
  const [, shotId, step] = /^\/shots\/([^/]+)\/?([^/]*)/.exec(address) ?? [];
  if (shotId !== undefined) openAhead(shotId);
  const loads = step === undefined ? [loadShots] : [loadDesk, Stage.load, panelOf(step).load];
  for (const load of loads) {
    await nextTask();
    // One that fails is asked for again where it is shown, and says so there.
    load().catch(() => undefined);
  }
}

void loadAhead(window.location.pathname);

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

/** Three pages: all shots, the desk of one, and the pool. */
export function App() {
  return (
    <DayAndNight>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <Suspense>
            <Routes>
              <Route path="/" element={<ShotsPage />} />
              <Route
                path="/shots/:shotId/:station?"
                element={
                  <CrashGuard what="The desk">
                    <DeskPage />
                  </CrashGuard>
                }
              />
              <Route path="/pool" element={<PoolPage />} />
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
        <Notices />
      </QueryClientProvider>
    </DayAndNight>
  );
}
