import { lazy, Suspense } from 'react';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { useCatalogueQuery } from '../store/api';
import { BringUpView } from '../views/bringup/BringUpView';
import { BuildView } from '../views/build/BuildView';
import { ChartView } from '../views/chart/ChartView';
import { PlansView } from '../views/plans/PlansView';
import { StockView } from '../views/stock/StockView';
import { Announcer } from './announcer';
import { Message } from './Message';
import { PlanPage } from './PlanPage';
import { WorkbenchProvider } from './workbench';

const SheetsView = lazy(async () => ({ default: (await import('../views/sheets/SheetsView')).SheetsView }));
const SheetEditor = lazy(async () => ({ default: (await import('../views/sheets/SheetEditor')).SheetEditor }));
const FactsView = lazy(async () => ({ default: (await import('../views/facts/FactsView')).FactsView }));
const ReadoutView = lazy(async () => ({ default: (await import('../views/readout/ReadoutView')).ReadoutView }));
const SupplyView = lazy(async () => ({ default: (await import('../views/supply/SupplyView')).SupplyView }));
const ResistorsView = lazy(async () => ({ default: (await import('../views/resistors/ResistorsView')).ResistorsView }));
const LevelsView = lazy(async () => ({ default: (await import('../views/levels/LevelsView')).LevelsView }));
const BusesView = lazy(async () => ({ default: (await import('../views/buses/BusesView')).BusesView }));
const FitsView = lazy(async () => ({ default: (await import('../views/fits/FitsView')).FitsView }));
const NewBoard = lazy(async () => ({ default: (await import('../views/sheets/NewBoard')).NewBoard }));

/** Changes when the sheets do: the workbench is then set up anew around them. */
const edition = (sheets: readonly { readonly id: string; readonly version: number }[]): string =>
  sheets.map((sheet) => `${sheet.id}@${sheet.version}`).join();

export function App() {
  const catalogue = useCatalogueQuery();
  if (catalogue.isError) {
    return (
      <Message title="The server does not answer" action={{ label: 'Try again', run: () => void catalogue.refetch() }}>
        Roof Chart needs its server for the board and part sheets. Start it with <code>npm run demo</code>, then try again.
      </Message>
    );
  }
  if (!catalogue.data) return <Message title="Loading the sheets" />;
  return (
    <WorkbenchProvider key={edition(catalogue.data.sheets)} list={catalogue.data.sheets}>
      <Announcer />
      <BrowserRouter>
        <Suspense fallback={<Message title="Loading" />}>
          <Routes>
            <Route path="/" element={<PlansView />} />
            <Route path="/plans/:id" element={<PlanPage />}>
              <Route index element={<Navigate to="chart" replace />} />
              <Route path="stock" element={<StockView />} />
              <Route path="chart" element={<ChartView />} />
              <Route path="build" element={<BuildView />} />
              <Route path="bring-up" element={<BringUpView />} />
              <Route path="levels" element={<LevelsView />} />
              <Route path="resistors" element={<ResistorsView />} />
              <Route path="supply" element={<SupplyView />} />
              <Route path="readout" element={<ReadoutView />} />
              <Route path="buses" element={<BusesView />} />
              <Route path="buses/:bus" element={<BusesView />} />
              <Route path="fits" element={<FitsView />} />
              <Route path="fits/:side" element={<FitsView />} />
              <Route path="facts" element={<FactsView />} />
              <Route path="facts/:sheet" element={<FactsView />} />
            </Route>
            <Route path="/sheets" element={<SheetsView />} />
            <Route path="/sheets/new-board" element={<NewBoard />} />
            <Route path="/sheets/:id" element={<SheetsView />} />
            <Route path="/sheets/:id/edit" element={<SheetEditor />} />
            <Route path="*" element={<Message title="There is nothing at this address" action={{ label: 'Go to Plans', href: '/' }} />} />
          </Routes>
        </Suspense>
      </BrowserRouter>
    </WorkbenchProvider>
  );
}
