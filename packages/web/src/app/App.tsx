import { lazy, type ReactNode, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { useCatalogueQuery } from '../state/api';
import { BringUpView } from '../views/bringup/BringUpView';
import { BuildView } from '../views/build/BuildView';
import { ChartView } from '../views/chart/ChartView';
import { PlansView } from '../views/plans/PlansView';
import { StockView } from '../views/stock/StockView';
import { Announcer } from '../ui/announcer';
import { ErrorBoundary } from './ErrorBoundary';
import { Message } from './Message';
import { loaded } from './loaded';
import { PlanPage } from './PlanPage';
import { SignedOut } from './SignedOut';
import { SignIn } from './SignIn';
import { WorkbenchProvider } from './WorkbenchProvider';

const SheetsView = lazy(async () => ({ default: (await loaded(import('../views/sheets/SheetsView'))).SheetsView }));
const SheetEditor = lazy(async () => ({ default: (await loaded(import('../views/sheets/SheetEditor'))).SheetEditor }));
const FactsView = lazy(async () => ({ default: (await loaded(import('../views/facts/FactsView'))).FactsView }));
const ReadoutView = lazy(async () => ({ default: (await loaded(import('../views/readout/ReadoutView'))).ReadoutView }));
const SupplyView = lazy(async () => ({ default: (await loaded(import('../views/supply/SupplyView'))).SupplyView }));
const ResistorsView = lazy(async () => ({ default: (await loaded(import('../views/resistors/ResistorsView'))).ResistorsView }));
const LevelsView = lazy(async () => ({ default: (await loaded(import('../views/levels/LevelsView'))).LevelsView }));
const BusesView = lazy(async () => ({ default: (await loaded(import('../views/buses/BusesView'))).BusesView }));
const FitsView = lazy(async () => ({ default: (await loaded(import('../views/fits/FitsView'))).FitsView }));
const NewBoard = lazy(async () => ({ default: (await loaded(import('../views/sheets/NewBoard'))).NewBoard }));

/** Isolates a failing view. */
const safe = (view: ReactNode) => <ErrorBoundary what="This view">{view}</ErrorBoundary>;

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
    <WorkbenchProvider key={edition(catalogue.data.sheets)} list={catalogue.data.sheets}>
      <Announcer />
      <SignedOut />
      <BrowserRouter>
        <Suspense fallback={<Message title="Loading" />}>
          <Routes>
            <Route path="/" element={safe(<PlansView />)} />
            <Route path="/plans/:id" element={<PlanPage />}>
              <Route index element={<Navigate to="chart" replace />} />
              <Route path="stock" element={safe(<StockView />)} />
              <Route path="chart" element={safe(<ChartView />)} />
              <Route path="build" element={safe(<BuildView />)} />
              <Route path="bring-up" element={safe(<BringUpView />)} />
              <Route path="levels" element={safe(<LevelsView />)} />
              <Route path="resistors" element={safe(<ResistorsView />)} />
              <Route path="supply" element={safe(<SupplyView />)} />
              <Route path="readout" element={safe(<ReadoutView />)} />
              <Route path="buses" element={safe(<BusesView />)} />
              <Route path="buses/:bus" element={safe(<BusesView />)} />
              <Route path="fits" element={safe(<FitsView />)} />
              <Route path="fits/:side" element={safe(<FitsView />)} />
              <Route path="facts" element={safe(<FactsView />)} />
              <Route path="facts/:sheet" element={safe(<FactsView />)} />
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
  );
}
