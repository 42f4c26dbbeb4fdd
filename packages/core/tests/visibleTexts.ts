import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';

const ROOT = join(__dirname, '../../..');

/** A text with its place. */
export interface PlacedText {
  /** File and line, from the root of the repository. */
  readonly at: string;
  readonly text: string;
}

function filesIn(folder: string, ending: RegExp): readonly string[] {
  return readdirSync(join(ROOT, folder)).flatMap((name) => {
    const path = join(folder, name);
    if (name === 'node_modules' || name === 'dist') return [];
    if (statSync(join(ROOT, path)).isDirectory()) return filesIn(path, ending);
    return ending.test(name) ? [path] : [];
  });
}

/** Attributes of elements that nobody reads. */
const SILENT =
  /^(className|variant|size|color|align|justify|type|role|key|d|viewBox|transform|style|to|href|id|name|value|fill|stroke|data-.*)$/;

/** Text between tags, strings of several words, and the fixed parts of templates: what people may read of a source file. */
function stringsOf(path: string): readonly PlacedText[] {
  const source = readFileSync(join(ROOT, path), 'utf8');
  const file = ts.createSourceFile(path, source, ts.ScriptTarget.Latest, true, path.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS);
  const found: PlacedText[] = [];
  const add = (node: ts.Node, text: string, least = /[A-Za-z]{2,} [A-Za-z]|^[A-Z][a-z]+$/) => {
    const said = text.replace(/\s+/g, ' ').trim();
    if (!least.test(said)) return;
    found.push({ at: `${path}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1}`, text: said });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    if (ts.isJsxAttribute(node) && SILENT.test(node.name.getText()) && node.initializer && ts.isStringLiteral(node.initializer)) return;
    if (ts.isJsxText(node)) add(node, node.text);
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) add(node, node.text);
    else if (ts.isTemplateExpression(node)) {
      add(node, [node.head.text, ...node.templateSpans.map((span) => span.literal.text)].join('‹›'), /(^|[ ,:;(])[A-Za-z]{2,}/);
      for (const span of node.templateSpans) visit(span.expression);
    } else ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** Comments of a source file, each as one text. */
function commentsOf(path: string): readonly PlacedText[] {
  const source = readFileSync(join(ROOT, path), 'utf8');
  return [...source.matchAll(/\/\*\*[^]*?\*\/|(?:^[ \t]*\/\/[^\n]*\n?)+/gm)].map((match) => ({
    at: `${path}:${source.slice(0, match.index).split('\n').length}`,
    text: match[0].replace(/\s*\n\s*(\*|\/\/)? ?/g, ' ').trim(),
  }));
}

/** Names that the code still has until they follow: they may stand in comments only. */
const sources = (): readonly string[] =>
  ['core', 'server', 'web', 'cli', 'catalogue']
    .flatMap((name) => filesIn(`packages/${name}/src`, /\.tsx?$/))
    .filter((path) => !path.includes('.test.') && !path.includes('/probe/'));

/** Every text that a user can read in the sources. */
export const sourceTexts = (): readonly PlacedText[] => sources().flatMap(stringsOf);

/** Every comment of the sources. */
export const sourceComments = (): readonly PlacedText[] => sources().flatMap(commentsOf);

/** The lines of the documentation, without code. */
export function documentTexts(): readonly PlacedText[] {
  return ['README.md', ...filesIn('docs', /\.md$/)].flatMap((path) => {
    const bare = readFileSync(join(ROOT, path), 'utf8').replace(/```[^]*?```/g, (block) => block.replace(/[^\n]/g, ''));
    return bare.split('\n').map((line, n) => ({ at: `${path}:${n + 1}`, text: line.replace(/`[^`]*`|\]\([^)]*\)/g, '') }));
  });
}

/** The texts of all sheets and examples: strings of several words. */
export function sheetTexts(): readonly PlacedText[] {
  return [...filesIn('packages/catalogue/boards', /\.json$/), ...filesIn('packages/catalogue/parts', /\.json$/)].flatMap((path) => {
    const texts: PlacedText[] = [];
    JSON.parse(readFileSync(join(ROOT, path), 'utf8'), (key, value: unknown) => {
      if (typeof value === 'string' && value.includes(' ') && key !== 'document' && key !== 'section')
        texts.push({ at: `${relative('packages/catalogue', path)} ${key}`, text: value });
      return value;
    });
    return texts;
  });
}

/** Exported functions and classes of the core without a docstring. */
export function undocumented(): readonly string[] {
  return filesIn('packages/core/src', /\.ts$/)
    .filter((path) => !path.includes('.test.'))
    .flatMap((path) => {
      const file = ts.createSourceFile(path, readFileSync(join(ROOT, path), 'utf8'), ts.ScriptTarget.Latest, true);
      return file.statements.flatMap((statement) => {
        const exported = ts.canHaveModifiers(statement) && ts.getModifiers(statement)?.some((m) => m.kind === ts.SyntaxKind.ExportKeyword);
        if (!exported || ts.getJSDocCommentsAndTags(statement).length > 0) return [];
        const [declared] = ts.isVariableStatement(statement) ? statement.declarationList.declarations : [];
        const isFunction =
          ts.isFunctionDeclaration(statement) ||
          ts.isClassDeclaration(statement) ||
          (declared?.initializer !== undefined && ts.isArrowFunction(declared.initializer));
        const name =
          ts.isFunctionDeclaration(statement) || ts.isClassDeclaration(statement) ? statement.name?.text : declared?.name.getText();
        return isFunction ? [`${path}: ${name}`] : [];
      });
    });
}
