import { pinAbilities } from '@roof-chart/core/nets/pinWords';
import { typical } from '@roof-chart/core/quantity/range';
import { formatSi } from '@roof-chart/core/quantity/format';
import { enablingText } from '@roof-chart/core/text/enablingText';
import {
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

/** All facts of a board sheet. */
export function BoardFacts({ board }: { readonly board: IndexedBoard }) {
  const { sheet } = board;
  const header = new Map(sheet.headers.list.map((h) => [h.id, h.title]));
  const labelOf = (pin: string) => board.pins.get(pin)?.label ?? pin;
  return (
    <>
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
                : pinAbilities(board, board.pins.get(pin.id)!).join(', ')
              : pin.kind,
            [
              pin.trouble,
              ...(pin.duties ?? []).map((d) => d.note),
              pin.limits?.tolerantVolts ? `tolerates ${pin.limits.tolerantVolts} V` : '',
            ]
              .filter(Boolean)
              .map((one) => `${one!.replace(/\.$/, '')}.`)
              .join(' '),
          ])}
        />
      </Group>
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
      {sheet.usual && (
        <Group title="Usual buses" source={sheet.usual.source}>
          <ListTable
            label="Usual buses"
            heads={['Bus', 'Pins', 'Chip selects']}
            rows={[
              ...sheet.usual.list.map(({ controller, pins, selects = [] }) => [
                sheet.controllers.list.find(({ id }) => id === controller)?.title ?? controller,
                <span className="mono">
                  {Object.entries(pins)
                    .map(([line, pin]) => `${line.toUpperCase()} ${labelOf(pin)}`)
                    .join(', ')}
                </span>,
                <span className="mono">{selects.map(labelOf).join(', ')}</span>,
              ]),
              ...(sheet.usual.oneWire ?? []).map((pin) => ['1-Wire', <span className="mono">{labelOf(pin)}</span>, '']),
            ]}
          />
        </Group>
      )}
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
      <Group title="Memory" source={sheet.memory.source}>
        <FactTable rows={factRows({ kind: 'board', parent: 'memory' }, sheet.memory)} />
      </Group>
      {(sheet.onBoard.list.length > 0 || sheet.onBoard.parts) && (
        <Group title="On the board" source={sheet.onBoard.source}>
          <FactTable
            rows={[
              ...sheet.onBoard.list.map((o) => ({ name: o.what, value: `${o.pin}. ${o.note}` })),
              ...(sheet.onBoard.parts ?? []).map((p) => ({ name: p.name, value: `${p.part}, soldered` })),
            ]}
          />
        </Group>
      )}
      {sheet.radio && (
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
      )}
      {sheet.microPython && (
        <Group title="MicroPython" source={sheet.microPython.source}>
          <p>Supported; a bench probe is available.</p>
        </Group>
      )}
      {sheet.chipCircuit && (
        <Group title="Chip circuit" source={sheet.chipCircuit.source}>
          <FactTable
            rows={[
              ...sheet.chipCircuit.components.map(({ name, kind, value, ends, note }) => ({
                name,
                value: `${formatSi(value, CHIP_COMPONENTS[kind])} ${kind}, ${ends.map((id) => board.pins.get(id)?.label ?? id).join(' to ')}${note === undefined ? '' : `. ${note}`}`,
              })),
              ...(sheet.chipCircuit.connectors ?? []).map(({ name, title, pins }) => ({
                name,
                value: `${title}: ${pins.map(({ number, label }) => `${number} ${label}`).join(', ')}`,
              })),
              ...sheet.chipCircuit.settings.map((words) => ({ name: 'Fuses, configuration', value: words })),
            ]}
          />
        </Group>
      )}
      {sheet.enabling && (
        <Group title="Controllers to enable" source={sheet.enabling.source}>
          <FactTable
            rows={sheet.enabling.list.map((e) => ({
              name: board.controllers.get(e.controller)?.title ?? FUNCTION_WORDS[e.controller as EnabledFunction],
              value: enablingText(e),
            }))}
          />
        </Group>
      )}
    </>
  );
}
