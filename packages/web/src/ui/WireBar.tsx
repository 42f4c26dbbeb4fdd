import type { WireColour } from '@roof-chart/core/plan/plan';
import { WIRE_HEX } from '@roof-chart/core/outputs/wireHex';

/** A wire's real colour as a short bar; a thin line where there is no wire. */
export function WireBar({ colour }: { readonly colour: WireColour | undefined }) {
  return (
    <svg width="13" height="6" aria-hidden>
      {colour ? (
        <rect x="0.5" y="0.5" width="12" height="5" rx="1" fill={WIRE_HEX[colour]} stroke="var(--quiet)" strokeWidth="0.5" />
      ) : (
        <path d="M0 3h13" stroke="var(--rule-strong)" />
      )}
      {colour && <title>{colour}</title>}
    </svg>
  );
}
