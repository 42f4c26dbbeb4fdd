/** Every shortcut, for the list under "?" and nowhere else written down. */
export const SHORTCUTS: readonly { readonly group: string; readonly keys: readonly (readonly [string, string])[] }[] = [
  {
    group: 'Everywhere',
    keys: [
      ['Ctrl K', 'Search commands, parts, pins and findings'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z or Ctrl Y', 'Redo'],
      ['?', 'Show this list'],
      ['Esc', 'Close a dialog or leave a field'],
    ],
  },
  {
    group: 'In the Chart',
    keys: [
      ['Arrow keys', 'Move along wires and pins'],
      ['Enter or Space', 'Connect or disconnect here'],
      ['Shift ← or Shift →', 'Move the wire to the next legal pin'],
      ['Delete', 'Disconnect'],
      ['L', 'Lock or unlock the wire'],
      ['F', 'Next finding'],
      ['W', 'Set or clear the preference for this pin'],
      ['S', 'Assign pins, with a preview'],
      ['Home, End', 'First and last pin'],
      ['Page Up, Page Down', 'Ten wires up or down'],
      ['Esc', 'Leave the row'],
    ],
  },
];
