/** Every shortcut, for the list under "?" and nowhere else written down. */
export const SHORTCUTS: readonly { readonly group: string; readonly keys: readonly (readonly [string, string])[] }[] = [
  {
    group: 'Everywhere',
    keys: [
      ['Ctrl K', 'Search commands, parts, pins and findings'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z or Ctrl Y', 'Redo'],
      ['?', 'This list'],
      ['Esc', 'Close, or leave a field'],
    ],
  },
  {
    group: 'In the Chart',
    keys: [
      ['Arrow keys', 'Move along wires and pins'],
      ['Enter or Space', 'Wire or unwire here'],
      ['Shift ← or Shift →', 'Move the wire to the next legal pin'],
      ['Delete', 'Unwire'],
      ['L', 'Lock or unlock the wire'],
      ['F', 'Next finding'],
      ['W', 'Prefer this pin, or no longer'],
      ['S', 'Assign pins: connect everything, with a preview'],
      ['Home, End', 'First and last pin'],
      ['Page Up, Page Down', 'Ten wires up or down'],
      ['Esc', 'Leave the wire'],
    ],
  },
];
