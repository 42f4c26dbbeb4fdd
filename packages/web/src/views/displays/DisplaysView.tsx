import clsx from 'clsx';
import { lastOrThrow, orThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Checkbox, CopyButton, NativeSelect, Slider, Textarea } from '@mantine/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { layoutText } from '@roof-chart/core/displays/layout';
import { memoryLedger, type MemoryLine } from '@roof-chart/core/displays/memory';
import { type SegmentCurrent, segmentCurrent } from '@roof-chart/core/electrics/reports/segmentCurrent';
import { seenDisplays } from '@roof-chart/core/displays/chainedDisplay';
import { segmentTable, type SegmentTable } from '@roof-chart/core/displays/segmentTable';
import { type Placement, type Plan, PLAN_LIMITS, type Readout } from '@roof-chart/core/plan/plan';
import { formatBytes } from '@roof-chart/core/quantity/format';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { partSheet } from '@roof-chart/core/sheets/sheetIndex';
import { useWorkbench } from '../../state/workbench';
import { useOpenPlan } from '../../state/store';
import { MemoryAxes } from './MemoryAxes';
import { OwnGlyphs } from './OwnGlyphs';
import { PictureTool } from './PictureTool';
import { Preview } from './Preview';
import styles from './Displays.module.css';
import { currentText, hexByte, displayLayoutText, PICTURE_TEXT, tableText } from '@roof-chart/core/text/views/displayText';

/** What a program sends to light glyphs on bare segments, as they are wired. */
function Segments({ table, current }: { readonly table: SegmentTable; readonly current: SegmentCurrent | undefined }) {
  return (
    <div className={styles.table}>
      <p className={styles.fact}>
        Segments as wired: {table.bits.map((bit) => `bit ${bit.bit} ${bit.segment} (${bit.output})`).join(', ')}; active{' '}
        {table.activeLow ? 'low: common anode' : 'high: common cathode'}.
      </p>
      {current && <p className={styles.fact}>{currentText(current)}</p>}
      <div className={styles.scroll} tabIndex={0} role="region" aria-label="Segment table">
        <table>
          <tbody>
            <tr>
              <th scope="row">Glyph</th>
              {table.glyphs.map(({ glyph }) => (
                <th key={glyph} scope="col" className="mono">
                  {glyph === ' ' ? 'blank' : glyph}
                </th>
              ))}
            </tr>
            <tr>
              <th scope="row">Byte</th>
              {table.glyphs.map(({ glyph, byte }) => (
                <td key={glyph} className="mono">
                  {hexByte(byte)}
                </td>
              ))}
            </tr>
            <tr>
              <th scope="row">Segment walk test</th>
              {table.walk.map(({ segment, byte }) => (
                <td key={segment} className="mono">
                  {segment} {hexByte(byte)}
                </td>
              ))}
            </tr>
            {table.digits.length > 0 && (
              <tr>
                <th scope="row">Digits</th>
                {table.digits.map(({ digit, output, index }) => (
                  <td key={digit} className="mono">
                    {digit} {index === undefined ? '' : `${index} `}
                    <span className="quiet">{output}</span>
                  </td>
                ))}
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <CopyButton value={tableText(table)}>
        {({ copied, copy }) => (
          <Button size="compact-xs" variant="default" onClick={copy}>
            {copied ? 'Copied' : 'Copy table'}
          </Button>
        )}
      </CopyButton>
    </div>
  );
}

interface DisplayProps {
  readonly plan: Plan;
  readonly placement: Placement;
  readonly part: PartSheet;
  readonly members: readonly Placement[];
  readonly line: MemoryLine | undefined;
}

/** The frame memory of a display: of several modules that of all. */
function linesOf(lines: readonly MemoryLine[], members: readonly Placement[]): MemoryLine | undefined {
  const own = lines.filter(({ placement }) => members.some(({ id }) => id === placement));
  return own[0] && { ...own[0], bytes: own.reduce((sum, { bytes }) => sum + bytes, 0) };
}

/** The modules of a display of several, in their order, and how their bits are sent. */
function ChainOrder({ part, members }: { readonly part: PartSheet; readonly members: readonly Placement[] }) {
  if (members.length < 2) return null;
  const { chainBits } = part.bus;
  return (
    <p className={clsx('quiet', styles.fact)}>
      {members.length} modules in a chain, left to right: {members.map(({ name }) => name).join(', ')}. The bits that are sent first end up
      in {lastOrThrow(members).name}
      {chainBits === undefined ? '' : `; ${members.length} × ${chainBits} bits per update, most significant bit first`}.
    </p>
  );
}

type ReadoutChange = { readonly [K in keyof Readout]?: Readout[K] | undefined };

/** What a display is to show, with a way to change it. */
function useReadout(plan: Plan, placement: Placement) {
  const { edit } = useWorkbench();
  const kept = plan.readouts[placement.id];
  const [text, setText] = useState(kept?.text ?? '');
  const set = (change: ReadoutChange) => {
    const next = Object.fromEntries(
      Object.entries({ ...kept, ...change }).filter(([, value]) => value !== undefined && value !== ''),
    ) as Readout;
    if (JSON.stringify(next) === JSON.stringify(kept ?? {})) return;
    edit([{ kind: 'readout', placement: placement.id, readout: Object.keys(next).length > 0 ? next : null }]);
  };
  return { kept, text, setText, set, shown: { ...kept, text } satisfies Readout };
}

interface ShownProps extends Omit<DisplayProps, 'plan'> {
  readonly readout: Readout;
}

/** The text on the geometry of the display, and what that takes. */
function Shown({ placement, part, members, line, readout }: ShownProps) {
  const layout = layoutText(part, readout);
  /** Scroll position of a text: initially with the display filled. */
  const [step, setStep] = useState(part.readout?.columns ?? 0);
  return (
    <div>
      <Preview part={part} readout={readout} name={placement.name} step={step} />
      {layout?.scroll && (
        <Slider
          size="sm"
          my={8}
          min={0}
          max={layout.scroll.steps}
          value={Math.min(step, layout.scroll.steps)}
          thumbLabel={`Scroll step of ${placement.name}`}
          onChange={setStep}
        />
      )}
      {layout && (
        <p className={clsx(styles.fact, layout.cut > 0 || layout.unknown.length > 0 ? styles.bad : 'quiet')}>{displayLayoutText(layout)}</p>
      )}
      <ChainOrder part={part} members={members} />
      {line && (
        <p className={clsx('quiet', styles.fact)}>
          frame memory {formatBytes(line.bytes)}: {PICTURE_TEXT[line.picture]} ({line.format})
        </p>
      )}
    </div>
  );
}

interface ReadoutFieldsProps extends Pick<DisplayProps, 'part' | 'line'> {
  readonly readout: ReturnType<typeof useReadout>;
}

function ReadoutFields({ part, line, readout: { kept, text, setText, set, shown } }: ReadoutFieldsProps) {
  const takesText = layoutText(part, shown) !== undefined;
  const isPixels = part.readout?.unit === 'pixels';
  return (
    <div className={styles.fields}>
      {takesText && (
        <Textarea
          size="xs"
          label="Text"
          placeholder="Brood 34.5"
          autosize
          minRows={2}
          maxRows={6}
          maxLength={PLAN_LIMITS.readoutText}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          onBlur={() => set({ text: text === '' ? undefined : text })}
        />
      )}
      {isPixels && (
        <NativeSelect
          size="xs"
          label="Character size"
          value={String(kept?.scale ?? 1)}
          data={[1, 2, 3, 4, 6, 8].map((n) => ({ value: String(n), label: n === 1 ? '5 × 7 pixels' : `${n}×` }))}
          onChange={(event) => set({ scale: Number(event.currentTarget.value) })}
        />
      )}
      {takesText && part.readout?.shape !== 'round' && (
        <Checkbox
          size="xs"
          label="Scroll longer text"
          checked={kept?.scroll === true}
          onChange={(event) => set({ scroll: event.currentTarget.checked ? true : undefined })}
        />
      )}
      {line && isPixels && (
        <NativeSelect
          size="xs"
          label="Frame buffer"
          value={line.picture}
          data={Object.entries(PICTURE_TEXT).map(([value, label]) => ({ value, label }))}
          onChange={(event) => set({ picture: event.currentTarget.value as MemoryLine['picture'] })}
        />
      )}
    </div>
  );
}

/** One display: what it shows, with its own glyphs and pictures, and the bytes of bare segments. */
function Display({ plan, placement, part, members, line }: DisplayProps) {
  const { sheets } = useWorkbench();
  const readout = useReadout(plan, placement);
  const { kept, set } = readout;
  const table = segmentTable(plan, sheets, placement.id);
  const unit = part.readout?.unit;
  const ownUnit = unit === 'characters' || (unit === 'digits' && part.readout?.shape !== 'fourteen segments') ? unit : undefined;
  return (
    <section className={styles.display} aria-label={placement.name}>
      <h3>
        {placement.name} <span className="quiet">{part.title}</span>
      </h3>
      <Shown placement={placement} part={part} members={members} line={line} readout={readout.shown} />
      <ReadoutFields part={part} line={line} readout={readout} />
      {ownUnit && <OwnGlyphs glyphs={kept?.glyphs ?? {}} unit={ownUnit} onChange={(glyphs) => set({ glyphs })} />}
      {unit === 'pixels' && <PictureTool part={part} pictures={kept?.pictures ?? []} onChange={(pictures) => set({ pictures })} />}
      {table && <Segments table={table} current={segmentCurrent(plan, sheets, placement.id)} />}
    </section>
  );
}

/** What the displays will show, on their real geometry, and the memory that their pictures take. */
export function DisplaysView() {
  const plan = useOpenPlan();
  const { sheets } = useWorkbench();
  const ledger = useMemo(() => orThrow(memoryLedger(plan, sheets), 'board sheet'), [plan, sheets]);
  const displays = useMemo(() => {
    const seen = seenDisplays(plan, sheets);
    const shown = new Set(seen.flatMap(({ members }) => members.map(({ id }) => id)));
    // Parts with a frame in memory and no geometry, which takes no text.
    const others = plan.placements.flatMap((placement) => {
      const part = partSheet(sheets, placement.sheet)?.sheet;
      return part?.memory && !shown.has(placement.id) ? [{ placement, part, members: [placement] }] : [];
    });
    return [...seen, ...others];
  }, [plan, sheets]);
  if (displays.length === 0)
    return (
      <div className={styles.empty}>
        <h2>No display yet</h2>
        <p>Add a display to preview its text on the real columns and rows, and to see its frame memory.</p>
        <Button component={Link} to={`/plans/${plan.id}/stock`}>
          Add a display
        </Button>
      </div>
    );
  return (
    <div className={styles.view}>
      <h2 className={styles.title}>Displays</h2>
      <MemoryAxes plan={plan} />
      {displays.map(({ placement, part, members }) => (
        <Display
          key={`${placement.id} ${plan.readouts[placement.id]?.text ?? ''}`}
          plan={plan}
          placement={placement}
          part={part}
          members={members}
          line={linesOf(ledger.lines, members)}
        />
      ))}
    </div>
  );
}
