import type { PartTerminal } from '../sheets/partSheet';

/** Whether a terminal is a further ground of a part that need not be wired and had better be; cathodes, too, have the role of a ground, but
 *  another label. */
export const isSecondGround = ({ role, need, label, also }: PartTerminal): boolean =>
  role === 'ground' && need === 'optional' && [label, ...(also ?? [])].some((text) => /gnd|vss/i.test(text));
