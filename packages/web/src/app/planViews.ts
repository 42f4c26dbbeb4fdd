import { type ComponentType, lazy } from 'react';
import type { Place } from '@roof-chart/core/checks/engine/check';
import { awaited, loaded } from './loaded';

/** A command that leads to a view, or to one side of it. */
interface ViewCommand {
  readonly id: string;
  readonly label: string;
  /** The end of the address. */
  readonly to: string;
  /** What else people type: trade terms, abbreviations, and what other programs call it. */
  readonly keywords: readonly string[];
}

interface ViewFacts {
  /** In the navigation; a view without is reached by links. */
  readonly label?: string;
  /** What may follow in its address. */
  readonly parameter?: string;
  readonly commands: readonly ViewCommand[];
}

/** A view of the plan with everything that leads to it. Its code is loaded when it is first shown, or by `load`. */
function view<P extends string>(path: P, facts: ViewFacts, load: () => Promise<ComponentType>) {
  return { path, ...facts, load, View: lazy(() => awaited(load)) };
}

/** The views of a plan in the order of the navigation: routes, navigation, commands and the links of findings are made from this list. */
export const PLAN_VIEWS = [
  view(
    'stock',
    {
      label: 'Parts',
      commands: [
        {
          id: 'stock',
          label: 'Open Parts: add or remove parts',
          to: 'stock',
          keywords: ['add', 'remove', 'parts', 'library', 'component', 'module', 'sensor', 'display'],
        },
      ],
    },
    async () => (await loaded(import('../views/stock/StockView'))).StockView,
  ),
  view(
    'chart',
    {
      label: 'Chart',
      commands: [
        {
          id: 'chart',
          label: 'Open the Chart',
          to: 'chart',
          keywords: ['wires', 'pins', 'pinout', 'wiring', 'connect', 'matrix', 'swap pins', 'GPIO'],
        },
        {
          id: 'assign',
          label: 'Assign pins, with a preview',
          to: 'chart?assign',
          keywords: ['auto-assign', 'allocate', 'optimise', 'autoroute', 'solve', 'place'],
        },
      ],
    },
    async () => (await loaded(import('../views/chart/ChartView'))).ChartView,
  ),
  view(
    'buses',
    {
      label: 'Buses',
      parameter: ':bus',
      commands: [
        {
          id: 'buses',
          label: 'Open Buses: addresses, pull-ups, load',
          to: 'buses',
          keywords: [
            'I2C',
            'SPI',
            'UART',
            'serial',
            '1-Wire',
            'pull-up',
            'address',
            'address conflict',
            'scan',
            'clock',
            '100 kHz',
            '400 kHz',
            '1 MHz',
            'fast mode',
            'chip select',
            'CS',
            'daisy chain',
            'chain',
            'bus load',
            'utilisation',
            'bus capacitance',
            'rise time',
            'multiplexer',
          ],
        },
      ],
    },
    async () => (await loaded(import('../views/buses/BusesView'))).BusesView,
  ),
  view(
    'levels',
    {
      label: 'Levels',
      commands: [
        {
          id: 'levels',
          label: 'Open Levels: output levels and input thresholds',
          to: 'levels',
          keywords: [
            'voltage',
            'logic level',
            'level shifter',
            'level converter',
            'translator',
            '5 V',
            '3.3 V',
            'tolerant',
            'VIH',
            'VIL',
            'VOH',
            'noise margin',
          ],
        },
      ],
    },
    async () => (await loaded(import('../views/levels/LevelsView'))).LevelsView,
  ),
  view(
    'resistors',
    {
      label: 'Resistors',
      commands: [
        {
          id: 'resistors',
          label: 'Open Resistors: values, bands, calculators',
          to: 'resistors',
          keywords: [
            'ohm',
            'LED',
            'divider',
            'calculator',
            'transistor',
            'MOSFET',
            'series resistor',
            'colour code',
            'bands',
            'E12',
            'E24',
            'ladder',
          ],
        },
      ],
    },
    async () => (await loaded(import('../views/resistors/ResistorsView'))).ResistorsView,
  ),
  view(
    'supply',
    {
      label: 'Power',
      commands: [
        {
          id: 'supply',
          label: 'Open Power: rail currents, dissipation, capacitors',
          to: 'supply',
          keywords: [
            'power',
            'current',
            'milliamperes',
            'mA',
            'USB',
            'decoupling',
            'bypass capacitor',
            'regulator',
            'dropout',
            'heat',
            'budget',
            'battery',
          ],
        },
      ],
    },
    async () => (await loaded(import('../views/supply/SupplyView'))).SupplyView,
  ),
  view(
    'readout',
    {
      label: 'Displays',
      commands: [
        {
          id: 'readout',
          label: 'Open Displays: text, frame memory, segment tables',
          to: 'readout',
          keywords: [
            'display',
            'RAM',
            'frame buffer',
            'framebuffer',
            'segments',
            'font',
            'characters',
            'glyph',
            'bitmap',
            'picture',
            'flash',
          ],
        },
      ],
    },
    async () => (await loaded(import('../views/displays/DisplaysView'))).DisplaysView,
  ),
  view(
    'build',
    {
      label: 'Build',
      commands: [
        {
          id: 'build',
          label: 'Open the Build sheet',
          to: 'build',
          keywords: [
            'wire list',
            'netlist',
            'export',
            'print',
            'constants',
            'bill of materials',
            'BOM',
            'CSV',
            'header file',
            'device tree',
            'breadboard',
          ],
        },
        { id: 'steps', label: 'Build step by step', to: 'build?mode=steps', keywords: ['tablet', 'assembly', 'step'] },
      ],
    },
    async () => (await loaded(import('../views/build/BuildView'))).BuildView,
  ),
  view(
    'bring-up',
    {
      label: 'Bring-up',
      commands: [
        {
          id: 'bring-up',
          label: 'Open Bring-up',
          to: 'bring-up',
          keywords: ['scan', 'bench test', 'first power-up', 'test', 'probe', 'debug', 'i2cdetect', 'not working'],
        },
      ],
    },
    async () => (await loaded(import('../views/bringup/BringUpView'))).BringUpView,
  ),
  view(
    'fits',
    {
      label: 'What fits',
      parameter: ':side',
      commands: [
        {
          id: 'fits',
          label: 'What fits: other boards for these parts',
          to: 'fits',
          keywords: ['switch board', 'change board', 'other board', 'boards', 'migrate'],
        },
        { id: 'fits-parts', label: 'What fits: more parts on this board', to: 'fits/parts', keywords: ['add', 'more parts', 'free pins'] },
      ],
    },
    async () => (await loaded(import('../views/fits/FitsView'))).FitsView,
  ),
  view(
    'facts',
    {
      parameter: ':sheet',
      commands: [
        {
          id: 'facts',
          label: 'Open Facts: sheet values and bench notes',
          to: 'facts',
          keywords: ['bench note', 'measured', 'unverified', 'correct a value', 'datasheet'],
        },
      ],
    },
    async () => (await loaded(import('../views/facts/FactsView'))).FactsView,
  ),
] as const;

type PlanViewPath = (typeof PLAN_VIEWS)[number]['path'];

type Holds<T extends true> = T;
/** Checked by the compiler: every view that a finding leads to is in the list. @public */
export type FindingsLeadToViews = Holds<NonNullable<Place['view']> | 'chart' | 'buses' extends PlanViewPath ? true : false>;
