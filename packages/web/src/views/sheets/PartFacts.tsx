import { formatAddress } from '@roof-chart/core/quantity/format';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { ROLE_WORDS } from '@roof-chart/core/sheets/roles';
import { deviceAddresses } from '../stock/stockWords';
import { FactTable, Group, ListTable } from './FactTable';
import { factRows } from './factWords';

const HOW = {
  fixed: 'fixed',
  strap: 'by strap',
  'order-code': 'by the letters ordered',
  program: 'set by the program after start',
  stored: 'stored in the part',
} as const;

function busRows(part: PartSheet) {
  const devices = (part.bus.devices ?? []).flatMap((device) => [
    {
      name: device.chip,
      value: `${deviceAddresses(device)}, ${HOW[device.how]}, at most ${device.maxHz / 1000} kHz, ${
        device.clockStretching === false ? 'no clock stretching' : 'may stretch the clock'
      }`,
    },
    ...(device.alsoAnswers ?? []).map((also) => ({
      name: `${device.chip} also`,
      value: `${formatAddress(also.address)}: ${also.note}`,
    })),
  ]);
  const straps = (part.bus.straps ?? []).map((strap) => ({
    name: `strap ${strap.id}`,
    value: strap.states.map((s) => `${s.words}${s.id === strap.default ? ' (as delivered)' : ''}`).join('; '),
  }));
  return [...factRows(part.bus, ['devices', 'straps', 'modeTies']), ...devices, ...straps];
}

/** Everything a part sheet says. */
export function PartFacts({ part }: { readonly part: PartSheet }) {
  return (
    <>
      <Group title={`Terminals, ${part.terminals.list.length}`} source={part.terminals.source}>
        <ListTable
          label="Terminals"
          heads={['No.', 'Label', 'Also printed', 'Role', 'Need', 'Note']}
          rows={part.terminals.list.map((t) => [
            <span className="num">{t.number}</span>,
            <span className="mono">{t.label}</span>,
            <span className="mono">{t.also?.join(' ') ?? ''}</span>,
            ROLE_WORDS[t.role],
            `${t.need}${t.ties ? `, may be tied to ${t.ties.join(' or ')}` : ''}`,
            [t.note, t.through ? `Through ${t.through}.` : ''].filter(Boolean).join(' '),
          ])}
        />
      </Group>
      <Group title="Bus" source={part.bus.source}>
        <FactTable rows={busRows(part)} />
      </Group>
      {part.supply && (
        <Group title="Supply" source={part.supply.source}>
          <FactTable rows={factRows(part.supply)} />
        </Group>
      )}
      {part.levels && (
        <Group title="Logic levels" source={part.levels.source}>
          <FactTable rows={factRows(part.levels)} />
        </Group>
      )}
      <Group title="On the module" source={part.module.source}>
        <FactTable rows={factRows(part.module)} />
      </Group>
      {part.memory && (
        <Group title="Memory it asks of the board" source={part.memory.source}>
          <FactTable rows={factRows(part.memory)} />
        </Group>
      )}
      {part.readout && (
        <Group title="Readout" source={part.readout.source}>
          <FactTable rows={factRows(part.readout)} />
        </Group>
      )}
      {part.polarity && (
        <Group title="LEDs" source={part.polarity.source}>
          <FactTable rows={factRows(part.polarity)} />
        </Group>
      )}
      <Group title="First power-up" source={part.firstLight.source}>
        <p>{part.firstLight.see}</p>
        <p className="quiet">If not: {part.firstLight.causes.join('; ')}.</p>
      </Group>
      {part.twins.length > 0 && (
        <Group title="Mistaken for">
          <FactTable rows={part.twins.map((t) => ({ name: t.what, value: t.tell }))} />
        </Group>
      )}
    </>
  );
}
