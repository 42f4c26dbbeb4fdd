import { Button, Modal, UnstyledButton } from '@mantine/core';
import { useMemo, useState } from 'react';
import { describeFinding } from '@roof-chart/core/text/describe';
import type { Finding } from '@roof-chart/core/checks/engine/check';
import type { Placement, Plan } from '@roof-chart/core/plan/plan';
import { counted, formatBytes, formatSi } from '@roof-chart/core/quantity/format';
import { compareForms, formsOf, type VariantRow } from '@roof-chart/core/review/variants';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { applyEdits } from '@roof-chart/core/plan/applyEdits';
import { useWorkbench } from '../../state/workbench';
import { rateText } from '@roof-chart/core/text/lineText';
import styles from './Forms.module.css';

/** "2 other forms": opens the comparison of a part with the other forms it is sold in. */
export function Forms({ plan, placement }: { readonly plan: Plan; readonly placement: Placement }) {
  const { sheets } = useWorkbench();
  const [open, setOpen] = useState(false);
  const part = partSheet(sheets, placement.sheet)?.sheet;
  const others = useMemo(() => (part ? formsOf(sheets, part).length - 1 : 0), [sheets, part]);
  if (others === 0 || placement.onBoard) return null;
  const otherVersions = counted(others, 'other version');
  return (
    <>
      <UnstyledButton className={styles.open} aria-label={`${otherVersions}: compare with ${placement.name}`} onClick={() => setOpen(true)}>
        {otherVersions}
      </UnstyledButton>
      <Modal
        opened={open}
        onClose={() => setOpen(false)}
        size="auto"
        title={`${placement.name}: versions in this plan`}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {open && <Comparison plan={plan} placement={placement} onSwap={() => setOpen(false)} />}
      </Modal>
    </>
  );
}

interface Line {
  readonly head: string;
  say(row: VariantRow): string;
}

const LINES: readonly Line[] = [
  { head: 'Dedicated pins', say: (row) => String(row.privatePins) },
  { head: 'Bus pins', say: (row) => String(row.sharedPins) },
  { head: 'Wires', say: (row) => String(row.wires) },
  { head: 'Selectable addresses', say: (row) => (row.addresses === undefined ? 'not needed' : String(row.addresses)) },
  { head: 'Maximum rate', say: (row) => rateText(row.mostPerSecond, row.what) },
  { head: 'Frame buffer', say: (row) => (row.ramBytes > 0 ? formatBytes(row.ramBytes) : 'none') },
  { head: 'Supply current', say: (row) => (row.typicalMilliamps === undefined ? 'unknown' : formatSi(row.typicalMilliamps / 1000, 'A')) },
  { head: 'Level shifting', say: (row) => (row.shifts ? 'needed' : 'not needed') },
  {
    head: 'Pull-ups on the module',
    say: (row) => (row.pullUps.length > 0 ? [...new Set(row.pullUps)].map((ohms) => formatSi(ohms, 'Ω')).join(', ') : 'none'),
  },
  { head: 'Other wires moved', say: (row) => String(row.moved) },
  { head: 'Unconnected terminals', say: (row) => String(row.open.length) },
];

interface SwitchProps {
  readonly placement: Placement;
  readonly row: VariantRow;
  readonly onSwap: () => void;
}

function SwitchButton({ placement, row, onSwap }: SwitchProps) {
  const { edit } = useWorkbench();
  return (
    <Button
      size="compact-xs"
      variant="outline"
      onClick={() => {
        edit(row.edits, `switch ${placement.name} to ${row.part.title}`);
        onSwap();
      }}
    >
      Switch to this version
    </Button>
  );
}

function Comparison({ plan, placement, onSwap }: { readonly plan: Plan; readonly placement: Placement; readonly onSwap: () => void }) {
  const { sheets } = useWorkbench();
  const rows = useMemo(() => compareForms(plan, sheets, placement.id) ?? [], [plan, sheets, placement.id]);
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">
              <span className={styles.hidden}>Property</span>
            </th>
            {rows.map((row) => (
              <th key={row.part.id} scope="col" className={row.current ? styles.current : undefined}>
                {row.part.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {LINES.map((line) => (
            <tr key={line.head}>
              <th scope="row">{line.head}</th>
              {rows.map((row) => (
                <td key={row.part.id} className={row.current ? styles.current : undefined}>
                  {line.say(row)}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <th scope="row">Findings</th>
            {rows.map((row) => (
              <td key={row.part.id} className={row.current ? styles.current : undefined}>
                {row.current ? 'unchanged' : <Changes plan={plan} row={row} />}
              </td>
            ))}
          </tr>
          <tr>
            <th scope="row">
              <span className={styles.hidden}>Action</span>
            </th>
            {rows.map((row) => (
              <td key={row.part.id} className={row.current ? styles.current : undefined}>
                {row.current ? 'in the plan' : <SwitchButton placement={placement} row={row} onSwap={onSwap} />}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="quiet">
        Each version is connected as far as this plan allows. Name, wires and jumpers in common are kept. Undo reverts the switch.
      </p>
    </div>
  );
}

/** Findings that come and go with a form. */
function Changes({ plan, row }: { readonly plan: Plan; readonly row: VariantRow }) {
  const { sheets } = useWorkbench();
  const after = useMemo(() => {
    const result = applyEdits(plan, row.edits, sheets);
    return result.ok ? result.plan : plan;
  }, [plan, row, sheets]);
  const say = (findings: readonly Finding[], of: Plan) =>
    findings.filter((f) => f.level !== 'hint').map((f) => describeFinding(of, sheets, f).title);
  const [added, gone] = [say(row.added, after), say(row.gone, plan)];
  if (added.length === 0 && gone.length === 0) return <>no change</>;
  return (
    <ul className={styles.changes}>
      {added.map((title) => (
        <li key={`+${title}`}>new: {title}</li>
      ))}
      {gone.map((title) => (
        <li key={`-${title}`}>solved: {title}</li>
      ))}
    </ul>
  );
}
