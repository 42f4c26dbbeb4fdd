import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import { sourceLine } from '@roof-chart/core/sheets/source';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { FacePicture } from '../../ui/face/Face';
import styles from './Sheets.module.css';

/** The front of a board or part, and how far the drawing can be trusted. */
export function SheetFace({ sheet }: { readonly sheet: BoardSheet | PartSheet }) {
  const face = sheet.kind === 'board' ? boardFace(sheet) : partFace(sheet);
  const { shape } = sheet;
  return (
    <figure className={styles.faceOfSheet}>
      <FacePicture face={face} />
      <figcaption className="quiet">
        {face.toScale ? 'To scale. ' : 'Pins to scale; the outline is not stated and drawn around them. '}
        {shape && `Source: ${sourceLine(shape.source)}.`}
        {shape?.source.note && ` ${shape.source.note}`}
      </figcaption>
    </figure>
  );
}
