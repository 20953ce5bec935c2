/** Places in the app: the list of jobs, the shelf, and a job by option and step. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { BrowserRouter, Route, Routes } from 'react-router';
import { HomePage } from '@/home/HomePage';
import { NoticeProvider } from '@/ui/Notices';
import { Waiting } from '@/ui/States';
import { JobPage } from './JobPage';

const ShelfPage = lazy(() => import('@/shelf/ShelfPage'));

const client = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 5000 }, mutations: { retry: 0 } },
});

export function App() {
  return (
    <QueryClientProvider client={client}>
      <NoticeProvider>
        <BrowserRouter>
          <Routes>
            <Route path="/" element={<HomePage />} />
            <Route
              path="/shelf"
              element={
                <Suspense fallback={<Waiting>Opening the shelf</Waiting>}>
                  <ShelfPage />
                </Suspense>
              }
            />
            <Route path="/jobs/:jobId" element={<JobPage />} />
            <Route path="/jobs/:jobId/:optionId" element={<JobPage />} />
            <Route path="/jobs/:jobId/:optionId/:stepId" element={<JobPage />} />
            <Route path="*" element={<HomePage />} />
          </Routes>
        </BrowserRouter>
      </NoticeProvider>
    </QueryClientProvider>
  );
}
