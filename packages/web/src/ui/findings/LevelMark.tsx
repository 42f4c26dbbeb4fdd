import type { Level } from '@roof-chart/core/checks/engine/check';
import { LEVEL_TEXT } from '@roof-chart/core/text/names';
import { capitalised } from '@roof-chart/core/quantity/format';

/** The mark of a level: square with a cross, triangle, ring; by shape as well as colour. */
export function LevelMark({ level }: { readonly level: Level }) {
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" role="img" aria-label={capitalised(LEVEL_TEXT[level])} style={{ flex: 'none' }}>
      {level === 'clash' && (
        <>
          <rect width="12" height="12" rx="1" fill="var(--brick)" />
          <path d="M3.5 3.5l5 5m0-5l-5 5" stroke="var(--field)" strokeWidth="1.6" />
        </>
      )}
      {level === 'risk' && <path d="M6 1l5.4 10H.6z" fill="var(--ochre-mark)" />}
      {level === 'hint' && <circle cx="6" cy="6" r="4.6" fill="none" stroke="var(--verdigris)" strokeWidth="2" />}
    </svg>
  );
}
