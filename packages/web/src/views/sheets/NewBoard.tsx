import clsx from 'clsx';
import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, NumberInput, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { boardFromTable } from '@roof-chart/core/sheets/boardFromTable';
import { boardOfChip, chipFacts } from '@roof-chart/core/sheets/chipFacts';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import { counted } from '@roof-chart/core/quantity/format';
import type { PinTable } from '@roof-chart/core/sheets/pinTable';
import { readSheet } from '@roof-chart/core/sheets/readSheet';
import { ReadingState } from '../../ui/ReadingState';
import { useReading } from '../../ui/useReading';
import { useWorkbench } from '../../state/workbench';
import { failureWords, useKeepSheetsMutation } from '../../state/api';
import { ListTable } from './FactTable';
import styles from './Sheets.module.css';
import { SheetsPage } from './SheetsPage';

const EXAMPLE = `Pin  Name  GPIO  Functions
1    3V3
2    GND
3    D0    PA0   I2C0 SDA / ADC0
4    D1    PA1   I2C0 SCL / ADC1`;

const slug = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 58) || 'board';

const NOTHING_READ: PinTable = { columns: [], rows: [], faults: [] };

/** What was understood of the pasted table, row by row. */
function Preview({ table }: { readonly table: PinTable }) {
  const strange = table.rows.filter((row) => row.strange.length > 0).length;
  return (
    <>
      <p aria-live="polite">
        <span className="num">{table.rows.length}</span> pins recognised
        {strange > 0 ? `; unrecognised words on ${counted(strange, 'pin')} are left out` : ''}.
      </p>
      {table.faults.length > 0 && (
        <ul className={styles.tableFaults} aria-label="Faults in the table">
          {table.faults.slice(0, 20).map((f) => (
            <li key={`${f.line} ${f.fault}`}>
              <span className="num">line {f.line}</span>: {f.fault}
            </li>
          ))}
          {table.faults.length > 20 && <li>and {table.faults.length - 20} more</li>}
        </ul>
      )}
      {table.rows.length > 0 && (
        <ListTable
          label="Recognised pins"
          heads={['Header', 'No.', 'Label', 'Port', 'Kind', 'Functions', 'Not recognised']}
          rows={table.rows.map((row) => [
            row.header,
            <span className="num">{row.position}</span>,
            <span className="mono">{row.label}</span>,
            <span className="mono">{row.port ?? ''}</span>,
            row.kind === 'io' ? (row.inputOnly ? 'input only' : 'signal') : row.kind,
            [
              ...row.functions,
              ...(row.adc === undefined ? [] : [`analog ${row.adc}`]),
              ...(row.pwm === undefined ? [] : ['PWM']),
              ...(row.interrupt === undefined ? [] : ['interrupt']),
            ].join(', '),
            <span className={styles.weak}>{row.strange.join(' ')}</span>,
          ])}
        />
      )}
    </>
  );
}

/** The facts copied from another board with the same chip. */
function KnownChip({ known, volts, table }: { readonly known: BoardSheet | undefined; readonly volts: number; readonly table: PinTable }) {
  if (!known)
    return (
      <p className="quiet">No sheet has this chip: levels, currents and clocks are set to typical CMOS values and marked unverified.</p>
    );
  const facts = chipFacts(known, volts);
  const signals = table.rows.filter((row) => row.kind === 'io');
  const met = signals.filter((row) => facts.pinOf(row)).length;
  return (
    <p className="quiet" aria-live="polite">
      Copied from {known.title} (same chip): {facts.sameVolts ? 'levels, currents' : 'currents (its levels are for a different supply)'},
      bus controllers with their clocks, memory
      {signals.length > 0 && `, and the functions of ${met} of ${counted(signals.length, 'signal pin')}`}. Not copied: rails and on-board
      parts.
    </p>
  );
}

/** What is said of the board beside its table. */
interface About {
  readonly title: string;
  readonly chip: string;
  readonly volts: number;
}

interface AboutFieldsProps {
  readonly about: About;
  readonly onChange: (about: About) => void;
}

function AboutFields({ about, onChange }: AboutFieldsProps) {
  return (
    <>
      <TextInput
        label="Title"
        placeholder="Chip and form: XC8 stick, 20 pins"
        value={about.title}
        maxLength={70}
        onChange={(e) => onChange({ ...about, title: e.currentTarget.value })}
      />
      <div className={styles.pair}>
        <TextInput
          label="Chip"
          placeholder="as marked"
          value={about.chip}
          maxLength={40}
          onChange={(e) => onChange({ ...about, chip: e.currentTarget.value })}
        />
        <NumberInput
          size="xs"
          label="Logic supply, V"
          min={1.2}
          max={5.5}
          step={0.1}
          value={about.volts}
          onChange={(value) => typeof value === 'number' && onChange({ ...about, volts: value })}
        />
      </div>
    </>
  );
}

/** Makes the sheet and keeps it; what is wrong with it is said, and nothing is lost. */
function useMaking() {
  const navigate = useNavigate();
  const [keep, { isLoading }] = useKeepSheetsMutation();
  const make = async ({ title, chip, volts }: About, table: PinTable, known: BoardSheet | undefined) => {
    const about = { id: `my-${slug(title)}`, title: title.trim(), chip: chip.trim(), form: 'own board', logicVolts: volts };
    const read = readSheet(JSON.parse(JSON.stringify(boardFromTable(about, table.rows, known))));
    const tell = (message: string) => void notifications.show({ message, color: 'brick', autoClose: false });
    if (!read.ok)
      return tell(`${firstOrThrow(read.faults).path}: ${firstOrThrow(read.faults).fault}. Nothing was saved; the table is kept.`);
    const result = await keep([read.sheet]);
    if (result.error) return tell(failureWords(result.error));
    void navigate(`/sheets/${about.id}`);
  };
  return { make, isLoading };
}

/** A new board from a pasted pin table. */
export function NewBoard() {
  const { sheets } = useWorkbench();
  const { make, isLoading } = useMaking();
  const [about, setAbout] = useState<About>({ title: '', chip: '', volts: 3.3 });
  const [text, setText] = useState('');
  const reading = useReading<PinTable>(text, (reviewer) => reviewer.readPinTable(text));
  const table = reading.value ?? NOTHING_READ;
  const known = boardOfChip(sheets, about.chip, about.volts);
  const isNamed = about.title.trim() !== '' && about.chip.trim() !== '';
  const ready = isNamed && table.rows.length > 0 && table.faults.length === 0 && reading.isCurrent;
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    if (ready) void make(about, table, known);
  };
  return (
    <SheetsPage title="New board from pin table">
      <form className={styles.newBoard} onSubmit={onSubmit}>
        <section className={styles.newBoardForm}>
          <AboutFields about={about} onChange={setAbout} />
          {about.chip.trim() !== '' && <KnownChip known={known} volts={about.volts} table={table} />}
          <Textarea
            label="Pin table"
            description="Paste it from a spreadsheet, a web page or a text file. Columns are recognised by their titles: Pin, Name, GPIO, Functions, Header."
            placeholder={EXAMPLE}
            value={text}
            onChange={(e) => setText(e.currentTarget.value)}
            spellCheck={false}
            classNames={{ input: clsx(styles.pasted) }}
          />
          <Button type="submit" disabled={!ready} loading={isLoading}>
            Create the board
          </Button>
          {!ready && (
            <p className="quiet">
              {table.faults.length > 0
                ? 'Correct the lines listed on the right first.'
                : 'Enter a title, the chip, and a table with one line per pin.'}
            </p>
          )}
        </section>
        <section aria-label="Recognised pins" className={styles.preview}>
          {text.trim() === '' ? (
            <p className="quiet">Paste the table: the recognised pins appear here.</p>
          ) : (
            <>
              <ReadingState reading={reading} />
              <Preview table={table} />
            </>
          )}
        </section>
      </form>
    </SheetsPage>
  );
}
