import type { FieldTexts } from './fieldText';

/** Fields that boards, parts and plans have in common. `*` holds wherever the nearer tables say nothing. */
export const SHARED_FIELDS: FieldTexts = {
  '*': {
    source: { label: 'Source' },
    min: { label: 'Minimum' },
    typ: { label: 'Typical' },
    max: { label: 'Maximum' },
    list: { label: 'Entries' },
    note: { label: 'Note', help: 'One sentence, shown wherever the fact is used.' },
    unknown: { label: 'Unknown facts', help: 'What is left out because no source states it.' },
  },
  shape: {
    body: { label: 'Body', help: 'A circuit board, a dual in-line chip, or a component on leads.' },
    widthMm: { label: 'Width', unit: 'mm', help: 'With the first end of the headers above.' },
    heightMm: { label: 'Height', unit: 'mm' },
    rows: { label: 'Rows of pins', help: 'Where the pins lie, 2.54 mm apart.' },
    mount: { label: 'Not for a breadboard', help: 'Why its pins cannot be plugged into one.' },
    labelledOn: { label: 'Labels printed on', help: 'The rear, if not the front.' },
    rowsMm: { label: 'Distance of its rows of pins', unit: 'mm' },
    features: { label: 'Features', help: 'Connectors, chips, buttons, holes.' },
  },
  rows: {
    header: { label: 'Header' },
    terminals: { label: 'Terminals', help: 'In order, the first one first.' },
    firstMm: { label: 'First pin', unit: 'mm', help: 'From the left edge, from the upper edge.' },
    towards: { label: 'Direction', help: 'Where the others follow.' },
  },
  features: {
    what: { label: 'Feature' },
    atMm: { label: 'Position', unit: 'mm', help: 'Upper left corner; the centre of a hole.' },
    sizeMm: { label: 'Size', unit: 'mm', help: 'Width and height.' },
    label: { label: 'Marking' },
  },
  '': {
    kind: { label: 'Kind of sheet' },
    schema: { label: 'Schema version' },
    id: { label: 'ID', help: 'Lower-case letters, digits and dashes. Plans refer to the sheet by it.' },
    version: { label: 'Version', help: 'Counts up with every saved change.' },
    title: { label: 'Title', help: 'As shown in lists: chip and form.' },
    shape: { label: 'Front', help: 'What is drawn of it; without it a plain front is drawn from its pins.' },
    summary: { label: 'Summary', help: 'One or two sentences: what it is and what to watch for.' },
    chip: { label: 'Chip', help: 'Part number as marked.' },
  },
  source: {
    document: { label: 'Document', help: 'Datasheet, standard or measurement.' },
    section: { label: 'Section', help: 'Chapter, table or page.' },
    trust: { label: 'Trust', help: 'Datasheet, standard, bench, or typical where nothing confirms it.' },
    note: { label: 'Note on the source' },
  },
  vihMin: {
    ratio: { label: 'Fraction of the supply', help: '0.7 for 0.7 VDD.' },
    volts: { label: 'Voltage', unit: 'V' },
  },
  vilMax: {
    ratio: { label: 'Fraction of the supply', help: '0.3 for 0.3 VDD.' },
    volts: { label: 'Voltage', unit: 'V' },
  },
  vohMin: { volts: { label: 'Voltage', unit: 'V' }, atMilliamps: { label: 'At load current', unit: 'mA' } },
  volMax: { volts: { label: 'Voltage', unit: 'V' }, atMilliamps: { label: 'At load current', unit: 'mA' } },
};

/** Fields of a regulator, on a board or in a part. */
export const REGULATOR_FIELDS: FieldTexts[string] = {
  kind: { label: 'Kind' },
  dropVolts: { label: 'Dropout voltage', unit: 'V' },
  kelvinPerWatt: { label: 'Thermal resistance', unit: 'K/W' },
  efficiency: { label: 'Efficiency', help: '0.9 for 90 %.' },
};
