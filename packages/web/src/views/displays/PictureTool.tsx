import { orThrow } from '@roof-chart/core/collections/orThrow';
import clsx from 'clsx';
import { ActionIcon, Button, Checkbox, CopyButton, FileButton, NativeSelect, Slider } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { PLAN_LIMITS, type PlanPicture } from '@roof-chart/core/plan/plan';
import { formatSi } from '@roof-chart/core/quantity/format';
import {
  bytesText,
  type Order,
  orderText,
  packPicture,
  type PictureForm,
  type Pixels,
  type Shading,
  valuesOfPixels,
} from '@roof-chart/core/displays/picture';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { useAnnounce } from '../../ui/announcer';
import { downloadBytes } from '../../ui/download';
import styles from './Displays.module.css';
import { readPicture } from './readPicture';

const SHADING_WORDS: { readonly [S in Shading]: string } = {
  threshold: 'threshold',
  pattern: 'ordered dither',
  spread: 'error diffusion',
};
const ORDER_WORDS: { readonly [O in Order]: string } = {
  pages: 'pages of eight rows',
  columns: 'column by column',
  rows: 'row by row',
};

/** The usual picture format of a display. */
function usualForm(part: PartSheet): PictureForm {
  const format = part.memory?.format ?? '';
  const bits = format.startsWith('16 bits') ? 16 : format.startsWith('4 bits') ? 4 : 1;
  return { bits, order: 'pages', first: bits === 1 ? 'low' : 'high', inverted: false, shading: 'spread', threshold: 127 };
}

/** Each pixel as it will be lit, as a picture for a canvas. */
function shownPixels(pixels: Pixels, form: PictureForm): ImageData {
  const values = valuesOfPixels(pixels, form);
  const data = new ImageData(pixels.width, pixels.height);
  values.forEach((value, at) => {
    const most = 2 ** form.bits - 1;
    const grey = Math.round((value * 255) / most);
    const colour = form.bits === 16 ? [(value >> 11) * 8.2, ((value >> 5) & 63) * 4.05, (value & 31) * 8.2] : [grey, grey, grey];
    data.data.set([...colour, 255], 4 * at);
  });
  return data;
}

function Preview({ pixels, form, name }: { readonly pixels: Pixels; readonly form: PictureForm; readonly name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const zoom = Math.max(1, Math.min(4, Math.floor(300 / pixels.width)));
  useEffect(() => {
    orThrow(canvas.current?.getContext('2d'), 'drawing context').putImageData(shownPixels(pixels, form), 0, 0);
  }, [pixels, form]);
  return (
    <canvas
      ref={canvas}
      className={styles.pixels}
      width={pixels.width}
      height={pixels.height}
      style={{ width: pixels.width * zoom, height: pixels.height * zoom }}
      role="img"
      aria-label={`${name} as the display shows it`}
    />
  );
}

interface FormFieldsProps {
  readonly form: PictureForm;
  readonly onChange: (form: PictureForm) => void;
}

/** What only a picture of one bit per pixel needs. */
function MonochromeFields({ form, onChange }: FormFieldsProps) {
  return (
    <>
      <NativeSelect
        size="xs"
        label="Order"
        value={form.order}
        data={Object.entries(ORDER_WORDS).map(([value, label]) => ({ value, label }))}
        onChange={(event) => onChange({ ...form, order: event.currentTarget.value as Order })}
      />
      <NativeSelect
        size="xs"
        label="Dithering"
        value={form.shading}
        data={Object.entries(SHADING_WORDS).map(([value, label]) => ({ value, label }))}
        onChange={(event) => onChange({ ...form, shading: event.currentTarget.value as Shading })}
      />
    </>
  );
}

function FormFields({ form, onChange }: FormFieldsProps) {
  const plain = form.bits === 1;
  return (
    <div className={styles.formFields}>
      <NativeSelect
        size="xs"
        label="Bits per pixel"
        value={String(form.bits)}
        data={[
          { value: '1', label: '1: monochrome' },
          { value: '4', label: '4: 16 grey levels' },
          { value: '16', label: '16: colour, 5-6-5' },
        ]}
        onChange={(event) => onChange({ ...form, bits: Number(event.currentTarget.value) as PictureForm['bits'] })}
      />
      {plain && <MonochromeFields form={form} onChange={onChange} />}
      <NativeSelect
        size="xs"
        label="Byte or bit order"
        value={form.first}
        data={[
          { value: 'low', label: plain ? 'least significant bit first' : form.bits === 16 ? 'low byte first' : 'low nibble first' },
          { value: 'high', label: plain ? 'most significant bit first' : form.bits === 16 ? 'high byte first' : 'high nibble first' },
        ]}
        onChange={(event) => onChange({ ...form, first: event.currentTarget.value as PictureForm['first'] })}
      />
      <Checkbox
        size="xs"
        label="Inverted"
        checked={form.inverted}
        onChange={(event) => onChange({ ...form, inverted: event.currentTarget.checked })}
      />
      {plain && (
        <label className={styles.threshold}>
          Threshold
          <Slider
            size="sm"
            min={0}
            max={254}
            value={form.threshold}
            thumbLabel="Brightness threshold"
            onChange={(threshold) => onChange({ ...form, threshold })}
          />
        </label>
      )}
    </div>
  );
}

interface PictureToolProps {
  readonly part: PartSheet;
  readonly pictures: readonly PlanPicture[];
  readonly onChange: (pictures: readonly PlanPicture[] | undefined) => void;
}

/** Where a picture file is dropped or opened. */
function DropZone({ words, onFile }: { readonly words: string; readonly onFile: (file: File | null | undefined) => void }) {
  const [over, setOver] = useState(false);
  return (
    <div
      className={over ? styles.dropOver : styles.drop}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        onFile(event.dataTransfer.files[0]);
      }}
    >
      <FileButton onChange={onFile} accept="image/png,image/jpeg,image/webp,image/gif">
        {(props) => (
          <Button {...props} size="compact-sm" variant="default">
            Open picture
          </Button>
        )}
      </FileButton>
      <span className="quiet">{words}</span>
    </div>
  );
}

interface OpenPicture {
  readonly name: string;
  readonly pixels: Pixels;
}

interface BytesProps {
  readonly picture: OpenPicture;
  readonly form: PictureForm;
  readonly isCounted: boolean;
  /** Whether the plan has room for one more. */
  readonly hasRoom: boolean;
  /** Counts the picture in the plan. */
  readonly onCount: (bytes: number) => void;
}

/** The open picture as it will be shown, and its bytes to take along. */
function PictureBytes({ picture: { name, pixels }, form, isCounted, hasRoom, onCount }: BytesProps) {
  const bytes = useMemo(() => packPicture(pixels, form), [pixels, form]);
  return (
    <>
      <Preview pixels={pixels} form={form} name={name} />
      <p className={styles.fact}>
        {formatSi(bytes.length, 'B')}: {orderText(form)}.
      </p>
      <div className={styles.addGlyph}>
        <CopyButton value={bytesText(bytes)}>
          {({ copied, copy }) => (
            <Button size="compact-sm" variant="default" onClick={copy}>
              {copied ? 'Copied' : 'Copy bytes'}
            </Button>
          )}
        </CopyButton>
        <Button size="compact-sm" variant="default" onClick={() => downloadBytes(`${name.replace(/\.\w+$/, '')}.bin`, bytes)}>
          Save as a file
        </Button>
        <Button size="compact-sm" disabled={!hasRoom && !isCounted} onClick={() => onCount(bytes.length)}>
          {isCounted ? 'Update in the flash total' : 'Add to the flash total'}
        </Button>
      </div>
    </>
  );
}

function PictureList({ pictures, onChange }: Pick<PictureToolProps, 'pictures' | 'onChange'>) {
  return (
    <ul className={styles.pictures}>
      {pictures.map((one) => (
        <li key={one.name}>
          {one.name} <span className="quiet num">{`${one.width} × ${one.height}, ${formatSi(one.bytes, 'B')}`}</span>
          <ActionIcon
            size={24}
            aria-label={`Remove the picture ${one.name}`}
            onClick={() => {
              const left = pictures.filter((other) => other !== one);
              onChange(left.length > 0 ? left : undefined);
            }}
          >
            <IconX size={13} />
          </ActionIcon>
        </li>
      ))}
    </ul>
  );
}

/** Makes a picture file into the bytes that a program brings along, and keeps account of them in the plan. */
export function PictureTool({ part, pictures, onChange }: PictureToolProps) {
  const announce = useAnnounce();
  const { columns, rows } = orThrow(part.readout, 'display');
  const [form, setForm] = useState(() => usualForm(part));
  const [open, setOpen] = useState<OpenPicture | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (file: File | null | undefined) => {
    if (!file) return;
    readPicture(file, columns, rows)
      .then((pixels) => {
        setProblem(null);
        setOpen({ name: file.name.slice(0, PLAN_LIMITS.nameLength), pixels });
        announce(`${file.name} scaled to ${columns} × ${rows} pixels`);
      })
      .catch((error: unknown) => {
        if (!(error instanceof RangeError)) throw error;
        setProblem(error.message);
      });
  };
  const count = (name: string, bytes: number) =>
    onChange([...pictures.filter((one) => one.name !== name), { name, width: columns, height: rows, bytes }]);
  return (
    <details className={styles.own} open={pictures.length > 0 || open !== null}>
      <summary>Pictures ({pictures.length})</summary>
      <DropZone words={`or drop it here; it is scaled to ${columns} × ${rows} pixels and converted to bytes.`} onFile={take} />
      {problem && (
        <p className={clsx(styles.fact, styles.bad)} role="alert">
          {problem}
        </p>
      )}
      {open && (
        <>
          <FormFields form={form} onChange={setForm} />
          <PictureBytes
            picture={open}
            form={form}
            isCounted={pictures.some((one) => one.name === open.name)}
            hasRoom={pictures.length < PLAN_LIMITS.pictures}
            onCount={(bytes) => count(open.name, bytes)}
          />
        </>
      )}
      <PictureList pictures={pictures} onChange={onChange} />
    </details>
  );
}
