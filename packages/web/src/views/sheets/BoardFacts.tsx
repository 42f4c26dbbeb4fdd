import { getOrThrow } from '@roof-chart/core/collections/orThrow';
import { pinAbilities } from '@roof-chart/core/nets/pinWords';
import { typical } from '@roof-chart/core/quantity/range';
import { formatSi } from '@roof-chart/core/quantity/format';
import { enablingText } from '@roof-chart/core/text/enablingText';
import {
  type BoardPin,
  CHIP_COMPONENTS,
  type Controller,
  type EnabledFunction,
  type OwnCurrent,
  type PinChoice,
  type Rail,
} from '@roof-chart/core/sheets/boardSheet';
import type { IndexedBoard } from '@roof-chart/core/sheets/sheetIndex';
import { FactTable, Group, ListTable } from './FactTable';
import { factRows } from '@roof-chart/core/text/views/factText';

const FUNCTION_WORDS: { readonly [F in EnabledFunction]: string } = { softi2c: 'Software I2C', onewire: '1-Wire', pwm: 'PWM' };

function legalWords(controller: Controller): string {
  const { legal } = controller;
  if (legal.rule === 'membership') return 'any pin with the line’s function';
  const listed = (sets: readonly PinChoice[]) =>
    sets
      .map((set) =>
        Object.entries(set)
          .map(([line, pin]) => `${line.toUpperCase()} ${pin}`)
          .join(', '),
      )
      .join('; or ');
  if (legal.rule === 'sets') return listed(legal.sets);
  const direct = legal.sets.length > 0 ? `; direct: ${listed(legal.sets)}` : '';
  return `any pins${direct}${legal.customary ? `; default: ${listed(legal.customary)}` : ''}`;
}

/** "VSYS, converter, 85 %". */
function madeFrom({ regulator }: Rail, rails: readonly Rail[]): string {
  if (!regulator) return '';
  const { from, kind = 'linear', efficiency } = regulator;
  const label = rails.find((rail) => rail.id === from)?.label ?? from;
  return `${label}, ${kind}${efficiency === undefined ? '' : `, ${Math.round(100 * efficiency)}\u00a0%`}`;
}

const currentWords = ({ typicalMilliamps, peakMilliamps }: OwnCurrent): string =>
  `${typicalMilliamps}\u00a0mA, up to ${peakMilliamps}\u00a0mA`;

interface BoardProps {
  readonly board: IndexedBoard;
}

const labelOf = (board: IndexedBoard, pin: string): string => board.pins.get(pin)?.label ?? pin;

/** What hinders the use of a pin, in sentences. */
const restrictions = ({ trouble, duties, limits }: BoardPin): string =>
  [trouble, ...(duties ?? []).map((d) => d.note), limits?.tolerantVolts ? `tolerates ${limits.tolerantVolts} V` : '']
    .flatMap((one) => (one ? [`${one.replace(/\.$/, '')}.`] : []))
    .join(' ');

function Pins({ board }: BoardProps) {
  const { sheet } = board;
  const header = new Map(sheet.headers.list.map((h) => [h.id, h.title]));
  return (
    <Group title={`Pins, ${sheet.pins.list.length}`} source={sheet.pins.source}>
      <ListTable
        label="Pins"
        heads={['Header', 'No.', 'Label', 'Port', 'Functions', 'Restrictions']}
        rows={sheet.pins.list.map((pin) => [
          pin.header ? header.get(pin.header) : 'not brought out',
          <span className="num">{pin.position ?? ''}</span>,
          <span className="mono">{[pin.label, ...(pin.also ?? []).filter((name) => name !== pin.port)].join(' ')}</span>,
          <span className="mono">{pin.port === pin.label ? '' : pin.port}</span>,
          pin.kind === 'io'
            ? pin.sameAs
              ? `same conductor as ${pin.sameAs}`
              : pinAbilities(board, getOrThrow(board.pins, pin.id)).join(', ')
            : pin.kind,
          restrictions(pin),
        ])}
      />
    </Group>
  );
}

function Controllers({ board }: BoardProps) {
  const { sheet } = board;
  return (
    <Group title="Bus controllers" source={sheet.controllers.source}>
      <ListTable
        label="Controllers"
        heads={['Controller', 'Maximum clock', 'Pins', 'Note']}
        rows={sheet.controllers.list.map((c) => [
          c.title,
          <span className="num">{formatSi(c.maxHz, 'Hz')}</span>,
          legalWords(c),
          c.note ?? '',
        ])}
      />
    </Group>
  );
}

function UsualBuses({ board }: BoardProps) {
  const { sheet } = board;
  const label = (pin: string) => labelOf(board, pin);
  if (!sheet.usual) return null;
  return (
    <Group title="Usual buses" source={sheet.usual.source}>
      <ListTable
        label="Usual buses"
        heads={['Bus', 'Pins', 'Chip selects']}
        rows={[
          ...sheet.usual.list.map(({ controller, pins, selects = [] }) => [
            sheet.controllers.list.find(({ id }) => id === controller)?.title ?? controller,
            <span className="mono">
              {Object.entries(pins)
                .map(([line, pin]) => `${line.toUpperCase()} ${label(pin)}`)
                .join(', ')}
            </span>,
            <span className="mono">{selects.map(label).join(', ')}</span>,
          ]),
          ...(sheet.usual.oneWire ?? []).map((pin) => ['1-Wire', <span className="mono">{label(pin)}</span>, '']),
        ]}
      />
    </Group>
  );
}

function Rails({ board }: BoardProps) {
  const { sheet } = board;
  return (
    <Group title="Power rails" source={sheet.rails.source}>
      <ListTable
        label="Rails"
        heads={['Rail', 'Nominal', 'Normal range', 'Limits', 'Maximum current', 'Regulated from', 'Board current', 'Supplied by']}
        rows={sheet.rails.list.map((rail) => [
          rail.label,
          <span className="num">{formatSi(typical(rail.volts), 'V')}</span>,
          <span className="num">{rail.usual ? `${rail.usual.min} to ${rail.usual.max}\u00a0V` : ''}</span>,
          <span className="num">{`${rail.volts.min} to ${rail.volts.max}\u00a0V`}</span>,
          <span className="num">{rail.budgetMilliamps === undefined ? 'unknown' : `${rail.budgetMilliamps} mA`}</span>,
          madeFrom(rail, sheet.rails.list),
          <span className="num">{rail.own ? currentWords(rail.own) : ''}</span>,
          rail.feed,
        ])}
      />
    </Group>
  );
}

function Electrical({ board }: BoardProps) {
  const { sheet } = board;
  return (
    <Group title="Electrical characteristics" source={sheet.electrical.source}>
      <FactTable rows={factRows({ kind: 'board', parent: 'electrical' }, sheet.electrical, ['portSums'])} />
      {sheet.electrical.portSums && (
        <ListTable
          label="Current limits per port"
          heads={['Ports', 'Maximum sink', 'Maximum source']}
          rows={sheet.electrical.portSums.map((sum) => [
            sum.ports,
            <span className="num">{sum.sinkMilliamps} mA</span>,
            <span className="num">{sum.sourceMilliamps === undefined ? '' : `${sum.sourceMilliamps} mA`}</span>,
          ])}
        />
      )}
    </Group>
  );
}

function Memory({ board }: BoardProps) {
  const { sheet } = board;
  return (
    <Group title="Memory" source={sheet.memory.source}>
      <FactTable rows={factRows({ kind: 'board', parent: 'memory' }, sheet.memory)} />
    </Group>
  );
}

function OnBoard({ board }: BoardProps) {
  const { sheet } = board;
  if (sheet.onBoard.list.length === 0 && !sheet.onBoard.parts) return null;
  return (
    <Group title="On the board" source={sheet.onBoard.source}>
      <FactTable
        rows={[
          ...sheet.onBoard.list.map((o) => ({ name: o.what, value: `${o.pin}. ${o.note}` })),
          ...(sheet.onBoard.parts ?? []).map((p) => ({ name: p.name, value: `${p.part}, soldered` })),
        ]}
      />
    </Group>
  );
}

function Radio({ board }: BoardProps) {
  const { sheet } = board;
  if (!sheet.radio) return null;
  return (
    <Group title="Radio" source={sheet.radio.source}>
      <FactTable
        rows={[
          { name: 'Kind', value: sheet.radio.kinds },
          {
            name: 'Blocks',
            value: sheet.radio.blocksAdc.length > 0 ? `analog inputs of ${sheet.radio.blocksAdc.join(', ')}` : 'nothing',
          },
          ...(sheet.radio.own ? [{ name: 'Additional current, logic rail', value: currentWords(sheet.radio.own) }] : []),
          ...(sheet.radio.note ? [{ name: 'Note', value: sheet.radio.note }] : []),
        ]}
      />
    </Group>
  );
}

function MicroPython({ board }: BoardProps) {
  const { sheet } = board;
  if (!sheet.microPython) return null;
  return (
    <Group title="MicroPython" source={sheet.microPython.source}>
      <p>Supported; a bench probe is available.</p>
    </Group>
  );
}

function ChipCircuit({ board }: BoardProps) {
  const { sheet } = board;
  if (!sheet.chipCircuit) return null;
  return (
    <Group title="Chip circuit" source={sheet.chipCircuit.source}>
      <FactTable
        rows={[
          ...sheet.chipCircuit.components.map(({ name, kind, value, ends, note }) => ({
            name,
            value: `${formatSi(value, CHIP_COMPONENTS[kind])} ${kind}, ${ends.map((id) => labelOf(board, id)).join(' to ')}${note === undefined ? '' : `. ${note}`}`,
          })),
          ...(sheet.chipCircuit.connectors ?? []).map(({ name, title, pins }) => ({
            name,
            value: `${title}: ${pins.map(({ number, label }) => `${number} ${label}`).join(', ')}`,
          })),
          ...sheet.chipCircuit.settings.map((words) => ({ name: 'Fuses, configuration', value: words })),
        ]}
      />
    </Group>
  );
}

function Enabling({ board }: BoardProps) {
  const { sheet } = board;
  if (!sheet.enabling) return null;
  return (
    <Group title="Controllers to enable" source={sheet.enabling.source}>
      <FactTable
        rows={sheet.enabling.list.map((e) => ({
          name: board.controllers.get(e.controller)?.title ?? FUNCTION_WORDS[e.controller as EnabledFunction],
          value: enablingText(e),
        }))}
      />
    </Group>
  );
}

/** All facts of a board sheet. */
export function BoardFacts({ board }: BoardProps) {
  return (
    <>
      <Pins board={board} />
      <Controllers board={board} />
      <UsualBuses board={board} />
      <Rails board={board} />
      <Electrical board={board} />
      <Memory board={board} />
      <OnBoard board={board} />
      <Radio board={board} />
      <MicroPython board={board} />
      <ChipCircuit board={board} />
      <Enabling board={board} />
    </>
  );
}
