import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** What is marked in a picture, as a parameter of the address: `part ID`, `net ID` or `wire KEY`. */
export type PictureMark = string | null;

/** The mark of a picture, and what sets it: the same again, or null, takes it away. */
export function usePictureMark(): readonly [PictureMark, (next: PictureMark) => void] {
  const [params, setParams] = useSearchParams();
  const mark = useCallback(
    (next: PictureMark) =>
      setParams(
        (now) => {
          if (next === null || now.get('mark') === next) now.delete('mark');
          else now.set('mark', next);
          return now;
        },
        { replace: true },
      ),
    [setParams],
  );
  return [params.get('mark'), mark];
}
