import { Button, SegmentedControl, Select } from '@mantine/core';
import { IconArrowLeft, IconPrinter } from '@tabler/icons-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { SavePicture } from '../../ui/SavePicture';
import styles from './Picture.module.css';
import type { PictureMark } from './usePictureMark';

const ZOOMS = [
  { value: 'whole', label: 'Whole' },
  { value: 'width', label: 'Width' },
  { value: '1', label: '100 %' },
  { value: '1.5', label: '150 %' },
];

/** What can be marked, for the list. */
export interface MarkGroup {
  readonly group: string;
  readonly items: readonly { readonly value: string; readonly label: string }[];
}

interface PictureFrameProps {
  readonly planName: string;
  readonly title: string;
  readonly summary: string;
  /** The picture as a file. */
  readonly svg: () => string;
  readonly onClose: () => void;
  readonly mark: PictureMark;
  readonly onMark: (mark: PictureMark) => void;
  readonly choices: readonly MarkGroup[];
  /** Between the title and the picture. */
  readonly tools?: ReactNode;
  readonly caption: string;
  /** The picture; pixels of the screen per pixel of it, null: as wide as the page. */
  readonly children: (scale: number | null) => ReactNode;
  /** Under the picture. */
  readonly below?: ReactNode;
}

/** A picture of the build with what all of them have: the way back, print, files, zoom, and what is marked. */
export function PictureFrame(props: PictureFrameProps) {
  const { planName, title, summary, svg, onClose, mark, onMark, choices, tools, caption, children, below } = props;
  // On a phone the whole width would be too small to read.
  const [zoom, setZoom] = useState(() => (window.matchMedia('(max-width: 700px)').matches ? '1' : 'width'));
  const paper = useRef<HTMLDivElement>(null);
  // The button that led here is gone: the keyboard goes on in the picture.
  useEffect(() => paper.current?.focus({ preventScroll: true }), []);
  useEffect(() => {
    paper.current?.querySelector('[data-ring]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [mark, zoom]);
  return (
    <div
      className={styles.view}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && mark !== null) onMark(null);
      }}
    >
      <div className={styles.top}>
        <h2 className={styles.title}>
          <span className={styles.printed}>{planName}: </span>
          {title}
        </h2>
        <span className="quiet num">{summary}</span>
        <Button variant="default" leftSection={<IconArrowLeft size={15} />} onClick={onClose}>
          Build sheet
        </Button>
        <Button variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
          Print
        </Button>
        <SavePicture label={`${planName} ${title.toLowerCase()}`} svg={svg} />
      </div>
      {tools}
      <div className={styles.captionRow}>
        <p className={styles.caption} role="status">
          {caption}
        </p>
        <SegmentedControl aria-label="Zoom" size="xs" data={ZOOMS} value={zoom} onChange={setZoom} />
        <Select
          aria-label="Highlight a part or a net"
          placeholder="Highlight a part or a net"
          size="xs"
          searchable
          clearable
          data={choices.map(({ group, items }) => ({ group, items: [...items] }))}
          value={mark?.startsWith('wire ') ? null : mark}
          onChange={onMark}
        />
      </div>
      <div ref={paper} className={styles.paper} data-zoom={zoom} tabIndex={0} role="group" aria-label={title}>
        {children(Number.isNaN(Number(zoom)) ? null : Number(zoom))}
      </div>
      {below}
    </div>
  );
}

/** The size of a picture on the screen, and its part that is shown: all of it. */
export const scaledTo = (width: number, height: number, scale: number | null) => ({
  viewBox: `0 0 ${width} ${height}`,
  className: styles.drawing,
  ...(scale === null ? { width: '100%', style: { maxWidth: width * 1.25 } } : { width: width * scale, height: height * scale }),
});
