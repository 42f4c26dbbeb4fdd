/** The marks of every chart. Shape carries the meaning; colour repeats it. */

interface MarkProps {
  readonly x: number;
  readonly y: number;
}

const R = 4.6;

/** Goes here. */
export function Disc({ x, y }: MarkProps) {
  return <circle cx={x} cy={y} r={R} fill="var(--ink)" />;
}

/** Goes here and may not be moved: a tick through the disc. */
export function LockedDisc({ x, y }: MarkProps) {
  return (
    <g>
      <circle cx={x} cy={y} r={R + 0.4} fill="var(--ink)" />
      <path d={`M${x - 2.3} ${y + 0.1}l1.7 1.9l3-3.8`} fill="none" stroke="var(--field)" strokeWidth="1.5" />
    </g>
  );
}

/** Two nets on one position. */
export function ClashDisc({ x, y }: MarkProps) {
  return (
    <g>
      <circle cx={x} cy={y} r={R + 0.4} fill="var(--brick)" />
      <path d={`M${x - 2} ${y - 2}l4 4m0-4l-4 4`} stroke="var(--field)" strokeWidth="1.4" />
    </g>
  );
}

/** Could go here. */
export function Ring({ x, y }: MarkProps) {
  return <circle cx={x} cy={y} r={R} fill="var(--field)" stroke="var(--copper)" strokeWidth="1.5" />;
}

/** Could go here, with a cost: hatched. */
export function CostRing({ x, y }: MarkProps) {
  return (
    <g stroke="var(--copper)">
      <circle cx={x} cy={y} r={R} fill="var(--field)" strokeWidth="1.5" />
      <path
        d={`M${x - 3.6} ${y + 0.6}l4.2-4.2M${x - 2.6} ${y + 3}l5.6-5.6M${x - 0.6} ${y + 3.8}l4.2-4.2`}
        strokeWidth="1"
        stroke="var(--ochre-mark)"
      />
    </g>
  );
}

/** Would come here: a disc in a ring. */
export function Coming({ x, y }: MarkProps) {
  return (
    <g>
      <circle cx={x} cy={y} r={R + 1.6} fill="var(--field)" stroke="var(--verdigris)" strokeWidth="1.6" />
      <circle cx={x} cy={y} r={R - 1.8} fill="var(--verdigris)" />
    </g>
  );
}

/** Would go from here: an empty ring, struck through. */
export function Leaving({ x, y }: MarkProps) {
  return (
    <g stroke="var(--ink)" fill="var(--field)">
      <circle cx={x} cy={y} r={R} strokeWidth="1.3" strokeDasharray="2 1.6" />
      <path d={`M${x - 5} ${y + 5}l10-10`} strokeWidth="1.3" />
    </g>
  );
}

/** The same conductor as another column. */
export function Echo({ x, y }: MarkProps) {
  return <circle cx={x} cy={y} r="2.2" fill="var(--quiet)" />;
}
