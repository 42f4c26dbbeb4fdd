import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import { rearFace } from '@roof-chart/core/faces/rearFace';
import { sourceLine } from '@roof-chart/core/sheets/source';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { FacePicture } from '../../ui/face/Face';
import styles from './Sheets.module.css';

/** The front or the rear of a board or part, and how far the drawing can be trusted. */
export function SheetFace({ sheet }: { readonly sheet: BoardSheet | PartSheet }) {
  const [side, setSide] = useState('front');
  const front = sheet.kind === 'board' ? boardFace(sheet) : partFace(sheet);
  const face = side === 'rear' ? rearFace(front) : front;
  const { shape } = sheet;
  return (
    <figure className={styles.faceOfSheet}>
      <SegmentedControl
        aria-label="Side that is shown"
        size="xs"
        data={[
          { value: 'front', label: 'Front' },
          { value: 'rear', label: 'Rear' },
        ]}
        value={side}
        onChange={setSide}
      />
      <FacePicture face={face} />
      <figcaption className="quiet">
        {face.toScale ? 'To scale. ' : 'Pins to scale; the outline is not stated and drawn around them. '}
        {shape?.labelledOn === 'rear' && 'Its labels are printed on the rear. '}
        {shape && `Source: ${sourceLine(shape.source)}.`}
        {shape?.source.note && ` ${shape.source.note}`}
      </figcaption>
    </figure>
  );
}
