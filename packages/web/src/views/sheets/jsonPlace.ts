import { findNodeAtLocation, type Node, parseTree, type ParseError, printParseErrorCode } from 'jsonc-parser';

export interface TextPlace {
  /** From 1. */
  readonly line: number;
  readonly start: number;
  readonly end: number;
}

const lineAt = (text: string, offset: number): number => text.slice(0, offset).split('\n').length;

/** A member of an object by key, or of a list by place or id; `list` is stepped into without being named. */
function step(node: Node, segment: string): Node | undefined {
  const at = /^\d+$/.test(segment) ? Number(segment) : undefined;
  const direct = findNodeAtLocation(node, [node.type === 'array' && at !== undefined ? at : segment]);
  if (direct) return direct;
  const list = node.type === 'array' ? node : findNodeAtLocation(node, ['list']);
  return list?.children?.find((member) => findNodeAtLocation(member, ['id'])?.value === segment);
}

/** The place of a path in the text of the document, as deep as the path can be followed.
 *  @example placeOf(text, 'supply.volts.max') */
export function placeOf(text: string, path: string): TextPlace {
  let node = parseTree(text);
  for (const segment of path.split('.').filter(Boolean)) {
    const next: Node | undefined = node && step(node, segment);
    if (!next) break;
    node = next;
  }
  const start = node?.offset ?? 0;
  return { line: lineAt(text, start), start, end: start + (node?.length ?? 0) };
}

/** The first place where the text is no JSON, in words; undefined where it is. */
export function syntaxFault(text: string): { readonly place: TextPlace; readonly fault: string } | undefined {
  const errors: ParseError[] = [];
  parseTree(text, errors, { allowTrailingComma: false, disallowComments: true });
  const first = errors[0];
  if (!first) return undefined;
  const words = printParseErrorCode(first.error)
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
  return {
    place: { line: lineAt(text, first.offset), start: first.offset, end: first.offset + first.length },
    fault: `not valid JSON: ${words}`,
  };
}
