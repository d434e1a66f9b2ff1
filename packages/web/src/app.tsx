import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { DeskPage } from './desk/desk';
import { ShotsPage } from './shots/shots-page';
import { DayAndNight } from './theme/theme-provider';
import { CrashGuard } from './ui/crash-guard';
import { Notices } from './ui/notices';

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

/** Two pages: all shots, and the desk of one. */
export function App() {
  return (
    <DayAndNight>
      <QueryClientProvider client={client}>
        <BrowserRouter>
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
        </BrowserRouter>
        <Notices />
      </QueryClientProvider>
    </DayAndNight>
  );
}
