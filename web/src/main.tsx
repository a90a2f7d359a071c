import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, Suspense, lazy } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Route, Routes } from 'react-router';
import './app.css';
import { Library } from './library/Library.tsx';
import { Commands } from './shell/commands.tsx';
import { applyTheme, followSystem } from './shell/theme.ts';
import { Missing } from './shell/Missing.tsx';

applyTheme();
followSystem();

// The manuscript and its editor load only when a script is opened.
const ScriptDesk = lazy(() => import('./script/ScriptDesk.tsx').then((m) => ({ default: m.ScriptDesk })));
const Begin = lazy(() => import('./begin/Begin.tsx').then((m) => ({ default: m.Begin })));
const FinishedDraft = lazy(() =>
  import('./begin/FinishedDraft.tsx').then((m) => ({ default: m.FinishedDraft })),
);
const VoicePlace = lazy(() => import('./voice/VoicePlace.tsx').then((m) => ({ default: m.VoicePlace })));
const ChannelPage = lazy(() => import('./library/ChannelPage.tsx').then((m) => ({ default: m.ChannelPage })));
const SourcePage = lazy(() => import('./sources/SourcePage.tsx').then((m) => ({ default: m.SourcePage })));

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5000 } } });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <BrowserRouter>
        <Commands>
          <Suspense fallback={<div className="h-full bg-sheet" />}>
            <Routes>
              <Route path="/" element={<Library />} />
              <Route path="/begin" element={<Begin />} />
              <Route path="/draft" element={<FinishedDraft />} />
              <Route path="/channel/:id" element={<ChannelPage />} />
              <Route path="/script/:id/voice" element={<VoicePlace />} />
              <Route path="/script/:id/*" element={<ScriptDesk />} />
              <Route path="/source/:id" element={<SourcePage />} />
              <Route path="*" element={<Missing />} />
            </Routes>
          </Suspense>
        </Commands>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
);
