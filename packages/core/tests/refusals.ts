/** One place of a document, spoilt in one way. */
interface Spoilt {
  readonly way: string;
  readonly document: unknown;
}

type Step = readonly (string | number)[];
type Loose = any; // eslint-disable-line @typescript-eslint/no-explicit-any

/** Keys that the author of a document chooses, such as names of terminals: all of them are one place. */
const isChosen = (key: string): boolean => !/^[a-z][a-zA-Z0-9]*$/.test(key);

const placeOf = (at: Step): string => at.map((key) => (typeof key === 'number' || isChosen(key) ? '*' : key)).join('.') || '(all)';

/** Every place of a document, the whole first. */
function steps(value: unknown, at: Step = []): readonly Step[] {
  if (typeof value !== 'object' || value === null) return [at];
  return [at, ...Object.entries(value).flatMap(([key, member]) => steps(member, [...at, Array.isArray(value) ? Number(key) : key]))];
}

const valueAt = (document: unknown, at: Step): unknown => at.reduce((node: Loose, key) => node[key] as Loose, document as Loose);

function withChange(document: unknown, at: Step, change: (parent: Loose, key: string | number) => void): unknown {
  const copy = structuredClone({ document });
  const whole: Step = ['document', ...at];
  change(valueAt(copy, whole.slice(0, -1)), whole.at(-1)!);
  return copy.document;
}

/** What somebody gets wrong at a value: as another type, beyond its limits, twice, none. */
function waysFor(value: unknown): readonly (readonly [string, unknown])[] {
  if (typeof value === 'number')
    return [
      ['negative', -1],
      ['zero', 0],
      ['half more', value + 0.5],
      ['doubled', value * 2],
      ['thousandfold', value * 1000],
      ['a millionfold', value * 1e6],
      ['as text', String(value)],
    ];
  if (typeof value === 'string')
    return [
      ['nowhere', 'nowhere'],
      ['empty', ''],
      ['long', 'long '.repeat(400)],
      ['a number', 7],
    ];
  if (typeof value === 'boolean')
    return [
      ['turned round', !value],
      ['as text', String(value)],
    ];
  if (Array.isArray(value))
    return [
      ['none in it', []],
      ['its first twice', [...(value as unknown[]), value[0]]],
      ['last left out', value.slice(0, -1)],
      ['reversed', value.toReversed()],
      ['as text', 'list'],
    ];
  return [
    ['one key more', { ...(value as object), strange: 1 }],
    ['nothing in it', {}],
    ['as a list', [value]],
  ];
}

function spoiltAt(document: unknown, at: Step): readonly Spoilt[] {
  const set = waysFor(valueAt(document, at)).map(([way, value]): Spoilt => ({
    way,
    document: withChange(document, at, (parent, key) => (parent[key] = value)),
  }));
  if (at.length === 0) return set;
  const gone = withChange(document, at, (parent, key) => {
    if (Array.isArray(parent)) parent.splice(Number(key), 1);
    else Reflect.deleteProperty(parent as object, key);
  });
  return [{ way: 'left out', document: gone }, ...set];
}

/** What a reader says to documents that are wrong at one place, as lines: each place once, in the first document that has it.
 *  @param documents by name
 *  @param read the refusals of a document, none where it is taken */
export function refusals(documents: ReadonlyMap<string, unknown>, read: (document: unknown) => readonly string[]): readonly string[] {
  const seen = new Set<string>();
  return [...documents].flatMap(([name, document]) => {
    const fresh = steps(document).filter((at) => {
      const place = placeOf(at);
      return !seen.has(place) && seen.add(place);
    });
    const lines = fresh.flatMap((at) => {
      const said = spoiltAt(document, at).map(({ way, document: spoilt }) => ({ way, faults: read(spoilt) }));
      const byAnswer = new Map<string, string[]>();
      for (const { way, faults } of said) {
        const answer = faults.length === 0 ? 'taken' : shortened(faults);
        byAnswer.set(answer, [...(byAnswer.get(answer) ?? []), way]);
      }
      const answers = [...byAnswer].map(([answer, ways]) => `  ${ways.join(', ')}: ${answer}`);
      return ['', at.join('.') || '(all)', ...answers];
    });
    return lines.length === 0 ? [] : ['', `# ${name}`, ...lines];
  });
}

/** The first two refusals, and how many more there are. */
const shortened = (faults: readonly string[]): string =>
  [...faults.slice(0, 2), ...(faults.length > 2 ? [`and ${faults.length - 2} more`] : [])].join(' | ').replace(/(long ){20,}/g, 'long … ');
