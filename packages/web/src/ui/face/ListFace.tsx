import { useInViewport } from '@mantine/hooks';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { memo, useState } from 'react';
import { FacePicture } from './Face';
import styles from './Face.module.css';

/** The likeness beside a name in a long list, drawn once it comes into view. */
export const ListFace = memo(function ListFace({ sheet }: { readonly sheet: BoardSheet | PartSheet }) {
  const { ref, inViewport } = useInViewport();
  const [isSeen, setSeen] = useState(false);
  if (inViewport && !isSeen) setSeen(true);
  return (
    <span ref={ref} className={styles.inList} aria-hidden>
      {isSeen && <FacePicture face={sheet.kind === 'board' ? boardFace(sheet) : partFace(sheet)} labels={false} maxScale={2} />}
    </span>
  );
});
