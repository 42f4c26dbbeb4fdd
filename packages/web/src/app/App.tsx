import { lazy, type ReactNode, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { useCatalogueQuery } from '../state/api';
import { PlansView } from '../views/plans/PlansView';
import { Announcer } from '../ui/announcer';
import { ErrorBoundary } from './ErrorBoundary';
import { Message } from './Message';
import { awaited, loaded } from './loaded';
import { PLAN_VIEWS } from './planViews';
import { SignedOut } from './SignedOut';
import { SignIn } from './SignIn';

// What edits a plan comes while the sheets do: the page is painted before either.
const WorkbenchProvider = lazy(() => awaited(async () => (await workbench).WorkbenchProvider));
const workbench = loaded(import('./WorkbenchProvider'));
const PlanPage = lazy(() => awaited(async () => (await planPage).PlanPage));
const planPage = loaded(import('./PlanPage'));

const SheetsView = lazy(() => awaited(async () => (await loaded(import('../views/sheets/SheetsView'))).SheetsView));
const SheetEditor = lazy(() => awaited(async () => (await loaded(import('../views/sheets/SheetEditor'))).SheetEditor));
const NewBoard = lazy(() => awaited(async () => (await loaded(import('../views/sheets/NewBoard'))).NewBoard));

/** Isolates a failing view. */
const safe = (view: ReactNode) => <ErrorBoundary what="This view">{view}</ErrorBoundary>;

/** The addresses of a view: its own, and that with its parameter. */
const viewRoutes = (one: (typeof PLAN_VIEWS)[number]) => [
  <Route key={one.path} path={one.path} element={safe(<one.View />)} />,
  ...('parameter' in one ? [<Route key={`${one.path}/`} path={`${one.path}/${one.parameter}`} element={safe(<one.View />)} />] : []),
];

/** Changes when the sheets do: the workbench is then set up anew around them. */
const edition = (sheets: readonly { readonly id: string; readonly version: number }[]): string =>
  sheets.map((sheet) => `${sheet.id}@${sheet.version}`).join();

export function App() {
  const catalogue = useCatalogueQuery();
  const isSignedOut = catalogue.isError && 'status' in catalogue.error && catalogue.error.status === 401;
  if (isSignedOut && !catalogue.data) {
    return (
      <Message title="Sign in">
        <SignIn />
      </Message>
    );
  }
  if (catalogue.isError && !catalogue.data) {
    return (
      <Message title="The server is not responding" action={{ label: 'Try again', run: () => void catalogue.refetch() }}>
        Roof Chart loads its board and part sheets from the server. Start it with <code>npm run demo</code>, then try again.
      </Message>
    );
  }
  if (!catalogue.data) return <Message title="Loading the sheets" />;
  return (
    <Suspense fallback={<Message title="Loading the sheets" />}>
      <WorkbenchProvider key={edition(catalogue.data.sheets)} list={catalogue.data.sheets}>
        <Announcer />
        <SignedOut />
        <BrowserRouter>
          <Suspense fallback={<Message title="Loading" />}>
            <Routes>
              <Route path="/" element={safe(<PlansView />)} />
              <Route path="/plans/:id" element={<PlanPage />}>
                <Route index element={<Navigate to="chart" replace />} />
                {PLAN_VIEWS.flatMap(viewRoutes)}
              </Route>
              <Route path="/sheets" element={safe(<SheetsView />)} />
              <Route path="/sheets/new-board" element={safe(<NewBoard />)} />
              <Route path="/sheets/:id" element={safe(<SheetsView />)} />
              <Route path="/sheets/:id/edit" element={safe(<SheetEditor />)} />
              <Route path="*" element={<Message title="Page not found" action={{ label: 'Go to Plans', href: '/' }} />} />
            </Routes>
          </Suspense>
        </BrowserRouter>
      </WorkbenchProvider>
    </Suspense>
  );
}
