import { usualSight } from '@roof-chart/core/bench/firstSight';
import { formatAddress, formatSi } from '@roof-chart/core/quantity/format';
import { typical } from '@roof-chart/core/quantity/range';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { ROLE_WORDS } from '@roof-chart/core/sheets/roles';
import { fieldText } from '@roof-chart/core/text/fieldText';
import { BUS_TEXT, deviceAddresses } from '@roof-chart/core/text/partText';
import { FactTable, Group, ListTable } from './FactTable';
import { factRows, type Within } from '@roof-chart/core/text/views/factText';

const HOW = {
  fixed: 'fixed',
  strap: 'by strap',
  'order-code': 'by the part number ordered',
  program: 'set by the program after start-up',
  stored: 'stored in the part',
} as const;

function busRows(part: PartSheet) {
  const devices = (part.bus.devices ?? []).flatMap((device) => [
    {
      name: device.chip,
      value: `${deviceAddresses(device)}, ${HOW[device.how]}, up to ${device.maxHz / 1000} kHz, ${
        device.clockStretching === false ? 'no clock stretching' : 'uses clock stretching'
      }`,
    },
    ...(device.alsoAnswers ?? []).map((also) => ({
      name: `${device.chip}, further address`,
      value: `${formatAddress(also.address)}: ${also.note}`,
    })),
  ]);
  const straps = (part.bus.straps ?? []).map((strap) => ({
    name: `Strap ${strap.id}`,
    value: strap.states
      .map((s) => `${s.words}${s.id === strap.default && !s.words.includes('as delivered') ? ' (as delivered)' : ''}`)
      .join('; '),
  }));
  const kind = { name: 'Bus', value: BUS_TEXT[part.bus.kind] };
  return [kind, ...factRows(within('bus'), part.bus, ['kind', 'devices', 'straps', 'modeTies']), ...devices, ...straps];
}

const NEED_WORDS = { needed: 'required', optional: 'optional', outside: 'external' } as const;

const within = (parent: string): Within => ({ kind: 'part', parent });

/** Groups that few parts have, in the order in which they are shown. */
const FURTHER_GROUPS = [
  'drive',
  'sinks',
  'multiplex',
  'currentSet',
  'levelShifter',
  'memory',
  'readout',
  'polarity',
  'keys',
  'encoder',
  'access',
] as const;

const titleOf = (group: string): string => fieldText('part', '', group)?.label ?? group;
const labelOf = (part: PartSheet, terminal: string): string => part.terminals.list.find((t) => t.id === terminal)?.label ?? terminal;

function Terminals({ part }: { readonly part: PartSheet }) {
  return (
    <ListTable
      label="Terminals"
      heads={['No.', 'Label', 'Other labels', 'Role', 'Connection', 'Note']}
      rows={part.terminals.list.map((t) => [
        <span className="num">{t.number}</span>,
        <span className="mono">{t.label}</span>,
        <span className="mono">{t.also?.join(' ') ?? ''}</span>,
        ROLE_WORDS[t.role],
        `${NEED_WORDS[t.need]}${t.ties ? `, may be tied to ${t.ties.join(' or ')}` : ''}`,
        [t.note, t.through ? `In series: ${t.through}.` : ''].filter(Boolean).join(' '),
      ])}
    />
  );
}

/** The rails that a part gives. */
function SupplyOutputs({ part }: { readonly part: PartSheet }) {
  if (!part.supplies) return null;
  return (
    <Group title={titleOf('supplies')} source={part.supplies.source}>
      <ListTable
        label="Supply outputs"
        heads={['Terminal', 'Voltage', 'Limits', 'Maximum current', 'Regulated from']}
        rows={part.supplies.list.map(({ output, volts, maxMilliamps, regulator }) => [
          <span className="mono">{labelOf(part, output)}</span>,
          <span className="num">{formatSi(typical(volts), 'V')}</span>,
          <span className="num">{`${volts.min} to ${volts.max}\u00a0V`}</span>,
          <span className="num">{maxMilliamps}&nbsp;mA</span>,
          regulator ? `${labelOf(part, regulator.from)}, ${regulator.kind ?? 'linear'}` : '',
        ])}
      />
    </Group>
  );
}

/** All facts of a part sheet. */
export function PartFacts({ part }: { readonly part: PartSheet }) {
  return (
    <>
      <Group title={`Terminals, ${part.terminals.list.length}`} source={part.terminals.source}>
        <Terminals part={part} />
      </Group>
      <Group title="Bus" source={part.bus.source}>
        <FactTable rows={busRows(part)} />
      </Group>
      {part.supply && (
        <Group title="Supply" source={part.supply.source}>
          <FactTable rows={factRows(within('supply'), part.supply)} />
        </Group>
      )}
      {part.levels && (
        <Group title="Logic levels" source={part.levels.source}>
          <FactTable rows={factRows(within('levels'), part.levels)} />
        </Group>
      )}
      <Group title="Components on the module" source={part.module.source}>
        <FactTable rows={factRows(within('module'), part.module)} />
      </Group>
      <SupplyOutputs part={part} />
      {FURTHER_GROUPS.map((key) => {
        const group = part[key];
        return (
          group && (
            <Group key={key} title={titleOf(key)} source={group.source}>
              <FactTable rows={factRows(within(key), group)} />
            </Group>
          )
        );
      })}
      <Group title="First power-up" source={part.firstLight.source}>
        <p>{usualSight(part)}</p>
        <p className="quiet">Not working? Check: {part.firstLight.causes.join('; ')}.</p>
      </Group>
      {part.twins.length > 0 && (
        <Group title="Look-alikes">
          <FactTable rows={part.twins.map((t) => ({ name: t.what, value: t.tell }))} />
        </Group>
      )}
    </>
  );
}
