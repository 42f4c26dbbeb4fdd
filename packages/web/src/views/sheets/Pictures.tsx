import { Link } from 'react-router';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import type { BoardSheet } from '@roof-chart/core/sheets/boardSheet';
import type { PartSheet } from '@roof-chart/core/sheets/partSheet';
import { FacePicture } from '../../ui/face/Face';
import styles from './Sheets.module.css';

interface PicturesProps {
  readonly sections: readonly { readonly head: string; readonly sheets: readonly (BoardSheet | PartSheet)[] }[];
}

/** Every sheet by its front, for those who know their part by sight. */
export function Pictures({ sections }: PicturesProps) {
  return sections.map(({ head, sheets }) => (
    <section key={head} aria-label={`${head} by picture`}>
      <h2 className={styles.sectionHead}>{head}</h2>
      <ul className={styles.pictures}>
        {sheets.map((sheet) => (
          <li key={sheet.id}>
            <Link to={`/sheets/${sheet.id}`} className={styles.pictureLink}>
              <span className={styles.pictureFace} aria-hidden>
                <FacePicture face={sheet.kind === 'board' ? boardFace(sheet) : partFace(sheet)} labels={false} maxScale={3} />
              </span>
              {sheet.title}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  ));
}
