import { stringify as tomlOf } from 'smol-toml';
import { stringify as yamlOf } from 'yaml';
import { openErrorsLine } from '../openErrors';
import type { Constant, ConstantSet, ConstantValue } from './constantSet';
import { inComment } from './names';

const hexOf = (value: number, digits = 2): string => `0x${value.toString(16).toUpperCase().padStart(digits, '0')}`;
const numberOf = (value: number, hex: boolean | undefined): string => (hex ? hexOf(value) : String(value));

/** The code point of a character. */
const codeOf = (character: string): number => character.codePointAt(0) ?? 0;

const utf8 = (text: string): readonly number[] =>
  [...text].flatMap((character) => {
    const code = codeOf(character);
    if (code < 0x80) return [code];
    if (code < 0x800) return [0xc0 | (code >> 6), 0x80 | (code & 63)];
    if (code < 0x10000) return [0xe0 | (code >> 12), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63)];
    return [0xf0 | (code >> 18), 0x80 | ((code >> 12) & 63), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63)];
  });

const isPlain = (code: number): boolean => code >= 0x20 && code < 0x7f && code !== 0x22 && code !== 0x5c && code !== 0x3f;

/** A C string literal: non-ASCII as octal UTF-8 bytes, whose length is fixed. */
const cString = (text: string): string =>
  `"${utf8(text)
    .map((code) => (isPlain(code) ? String.fromCharCode(code) : `\\${code.toString(8).padStart(3, '0')}`))
    .join('')}"`;

const uHex = (character: string, digits: number): string => codeOf(character).toString(16).padStart(digits, '0');
const rustString = (text: string): string => `"${[...text].map((c) => (isPlain(codeOf(c)) ? c : `\\u{${uHex(c, 1)}}`)).join('')}"`;
const pythonString = (text: string): string =>
  `"${[...text].map((c) => (isPlain(codeOf(c)) ? c : c.length > 1 ? `\\U${uHex(c, 8)}` : `\\u${uHex(c, 4)}`)).join('')}"`;

const widest = (value: ConstantValue): number =>
  value.is === 'ints' ? Math.max(0, ...value.values) : value.is === 'int' ? value.value : 0;
const bitsOf = (value: ConstantValue): 8 | 16 | 32 => (widest(value) < 256 ? 8 : widest(value) < 65_536 ? 16 : 32);

const NUMBERING_TEXT: { readonly [N in ConstantSet['numbering']]: string } = {
  gpio: 'Pin numbers are GPIO numbers.',
  board: 'Pin numbers are the digital pin numbers of the board, as counted by its usual C++ core.',
  port: 'Pins are named by port and bit; there is no single pin number.',
};

/** The header of every file. */
function heading({ title, board, numbering, errors }: ConstantSet): readonly string[] {
  return [
    inComment(`${title} on ${board}. Generated from the plan; do not edit.`),
    NUMBERING_TEXT[numbering],
    ...(errors.length > 0 ? [inComment(openErrorsLine(errors))] : []),
  ];
}

const note = ({ note: words }: Constant): string => inComment(words);

function cppLine(constant: Constant): string {
  const { name, value } = constant;
  if (value.is === 'text') return `constexpr char ${name}[] = ${cString(value.value)};  // ${note(constant)}`;
  const type = `uint${bitsOf(value)}_t`;
  if (value.is === 'int') return `constexpr ${type} ${name} = ${numberOf(value.value, value.hex)};  // ${note(constant)}`;
  return `constexpr ${type} ${name}[] = {${value.values.map((one) => numberOf(one, value.hex)).join(', ')}};  // ${note(constant)}`;
}

/** A header for C++11 and later. */
export function writeCpp(set: ConstantSet): string {
  const groups = set.groups.map((group) => [
    '',
    `// ${inComment(group.title)}`,
    `namespace ${group.name} {`,
    ...group.constants.map((one) => `  ${cppLine(one)}`),
    `}  // namespace ${group.name}`,
  ]);
  return [
    ...heading(set).map((line) => `// ${line}`),
    '#pragma once',
    '#include <stdint.h>',
    '',
    `namespace ${set.name} {`,
    ...groups.flat(),
    '',
    `}  // namespace ${set.name}`,
    '',
  ].join('\n');
}

const upper = (...words: readonly string[]): string => words.map((word) => word.toUpperCase()).join('_');

/** Flat names, made unique. */
function flat(set: ConstantSet): readonly { readonly name: string; readonly constant: Constant; readonly first?: string }[] {
  const taken = new Set<string>();
  return set.groups.flatMap((group) =>
    group.constants.map((constant, at) => {
      let name = upper(group.name, constant.name);
      while (taken.has(name)) name += '_';
      taken.add(name);
      return { name, constant, ...(at === 0 ? { first: group.title } : {}) };
    }),
  );
}

/** The names of the languages without groups, in the order of the set. */
export const flatNames = (set: ConstantSet): readonly string[] => flat(set).map(({ name }) => name);

/** A header for C99. */
export function writeC(set: ConstantSet): string {
  const guard = upper(set.name, 'h');
  const line = (name: string, constant: Constant): string => {
    const { value } = constant;
    const words = `/* ${note(constant)} */`;
    if (value.is === 'int') return `#define ${name} ${numberOf(value.value, value.hex)}${value.value > 32_767 ? 'UL' : ''}  ${words}`;
    if (value.is === 'text') return `#define ${name} ${cString(value.value)}  ${words}`;
    return `static const uint${bitsOf(value)}_t ${name}[] = {${value.values.map((one) => numberOf(one, value.hex)).join(', ')}};  ${words}`;
  };
  return [
    ...heading(set).map((words) => `/* ${words} */`),
    `#ifndef ${guard}`,
    `#define ${guard}`,
    '#include <stdint.h>',
    ...flat(set).flatMap(({ name, constant, first }) => [
      ...(first === undefined ? [] : ['', `/* ${inComment(first)} */`]),
      line(name, constant),
    ]),
    '',
    `#endif`,
    '',
  ].join('\n');
}

/** A module of MicroPython. */
export function writeMicroPython(set: ConstantSet): string {
  const valueOf = (value: ConstantValue): string => {
    if (value.is === 'int') return numberOf(value.value, value.hex);
    if (value.is === 'text') return pythonString(value.value);
    const inside = value.values.map((one) => numberOf(one, value.hex)).join(', ');
    return bitsOf(value) === 8
      ? `bytes((${inside}${value.values.length === 1 ? ',' : ''}))`
      : `(${inside}${value.values.length === 1 ? ',' : ''})`;
  };
  return [
    ...heading(set).map((words) => `# ${words}`),
    ...flat(set).flatMap(({ name, constant, first }) => [
      ...(first === undefined ? [] : ['', `# ${inComment(first)}`]),
      `${name} = ${valueOf(constant.value)}  # ${note(constant)}`,
    ]),
    '',
  ].join('\n');
}

/** A module of Rust, without the standard library. */
export function writeRust(set: ConstantSet): string {
  const line = (constant: Constant): string => {
    const { name, value } = constant;
    const own = name.toUpperCase();
    const type = `u${bitsOf(value)}`;
    if (value.is === 'text') return `pub const ${own}: &str = ${rustString(value.value)}; // ${note(constant)}`;
    if (value.is === 'int') return `pub const ${own}: ${type} = ${numberOf(value.value, value.hex)}; // ${note(constant)}`;
    const inside = value.values.map((one) => numberOf(one, value.hex)).join(', ');
    return `pub const ${own}: [${type}; ${value.values.length}] = [${inside}]; // ${note(constant)}`;
  };
  const groups = set.groups.map((group) => [
    '',
    `// ${inComment(group.title)}`,
    `pub mod ${group.name} {`,
    ...group.constants.map((one) => `    ${line(one)}`),
    '}',
  ]);
  return [...heading(set).map((words) => `// ${words}`), '#![allow(dead_code)]', ...groups.flat(), ''].join('\n');
}

/** The same as data: groups of names with their values. */
export function constantTree(set: ConstantSet): { readonly [key: string]: unknown } {
  const plain = (value: ConstantValue): number | string | readonly number[] => (value.is === 'ints' ? value.values : value.value);
  return {
    plan: set.title,
    board: set.board,
    pin_numbers: set.numbering,
    ...(set.errors.length > 0 ? { open_errors: set.errors } : {}),
    ...Object.fromEntries(
      set.groups.map((group) => [
        group.name,
        { title: group.title, ...Object.fromEntries(group.constants.map((one) => [one.name, plain(one.value)])) },
      ]),
    ),
  };
}

/** The constants as JSON. */
export const writeJson = (set: ConstantSet): string => `${JSON.stringify(constantTree(set), null, 2)}\n`;
/** The constants as YAML. */
export const writeYaml = (set: ConstantSet): string => yamlOf(constantTree(set));
/** The constants as TOML. */
export const writeToml = (set: ConstantSet): string => `${tomlOf(constantTree(set))}\n`;
