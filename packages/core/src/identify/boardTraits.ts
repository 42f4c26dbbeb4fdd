import { type BoardSheet, USB_CONNECTORS } from '../sheets/boardSheet';
import { hasLogicVolts } from './identifyBoard';

/** What people know of a board without reading its name, each by the facts of its sheet. */
export const BOARD_TRAITS: { readonly [trait: string]: (board: BoardSheet) => boolean } = {
  '3.3 V': (board) => hasLogicVolts(board, 3.3),
  '5 V': (board) => hasLogicVolts(board, 5),
  ...Object.fromEntries(USB_CONNECTORS.map((usb) => [usb, ({ traits }: BoardSheet) => traits?.usb === usb])),
  stick: ({ form }) => /\bstick\b/.test(form),
  stamp: ({ form }) => /\bstamp\b/.test(form),
  shield: ({ form }) => /\bshield\b/.test(form),
  Linux: ({ system }) => system === 'linux',
  radio: ({ radio }) => radio !== undefined,
  'bare chip': ({ shape }) => shape?.body === 'dip',
};
