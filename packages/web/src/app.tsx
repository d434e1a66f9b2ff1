import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { DayAndNight } from './theme/theme-provider';
import { CrashGuard } from './ui/crash-guard';
import { Notices } from './ui/notices';

const DeskPage = lazy(async () => ({ default: (await import('./desk/desk')).DeskPage }));
const ShotsPage = lazy(async () => ({ default: (await import('./shots/shots-page')).ShotsPage }));

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

/** Two pages: all shots, and the desk of one. */
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
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
        <Notices />
      </QueryClientProvider>
    </DayAndNight>
  );
}
