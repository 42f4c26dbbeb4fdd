import { type Candidate, type Clues, identify as identifyPart } from '@roof-chart/core/identify/identify';
import { LABEL_LIMITS, readLabels } from '@roof-chart/core/identify/labelForms';
import { evidenceText } from '@roof-chart/core/text/evidenceText';
import type { Sheets } from '@roof-chart/core/sheets/sheetIndex';
import type { RegisterCommand } from '../command';
import { EXIT, type ExitCode, InputFault, type Io } from '../io';

interface IdentifyOptions {
  readonly labels?: string;
  readonly pins?: string;
  readonly size?: string;
  readonly does?: string;
  readonly chip?: string;
  readonly json: boolean;
}

/** Labels of a printed row are short; more of them than the largest connector is no row. */
const MOST = { labels: LABEL_LIMITS.labels, text: 400 } as const;

function readClues(options: IdentifyOptions): Clues {
  const texts = [options.labels, options.size, options.does, options.chip].filter((text) => text !== undefined);
  if (texts.some((text) => text.length > MOST.text)) throw new InputFault(`a clue has at most ${MOST.text} characters`);
  const labels = options.labels === undefined ? [] : readLabels(options.labels);
  if (labels.length > MOST.labels) throw new InputFault(`--labels: at most ${MOST.labels} labels, not ${labels.length}`);
  const pins = options.pins === undefined ? undefined : Number(options.pins);
  if (pins !== undefined && !(Number.isInteger(pins) && pins >= 1 && pins <= 400))
    throw new InputFault(`--pins: a whole number from 1 to 400, not ${options.pins}`);
  const clues: Clues = {
    ...(labels.length > 0 ? { labels } : {}),
    ...(pins === undefined ? {} : { pins }),
    ...(options.size ? { size: options.size } : {}),
    ...(options.does ? { does: options.does } : {}),
    ...(options.chip ? { chip: options.chip } : {}),
  };
  if (Object.keys(clues).length === 0) throw new InputFault('give at least one of --labels, --pins, --size, --does, --chip');
  return clues;
}

function asText({ part, score, speaksFor, speaksAgainst }: Candidate): string {
  return [
    `${Math.round(score * 100)}  ${part.title}  [${part.id}]`,
    ...(speaksFor.length > 0 ? [`    for: ${speaksFor.map(evidenceText).join('; ')}`] : []),
    ...(speaksAgainst.length > 0 ? [`    against: ${speaksAgainst.map(evidenceText).join('; ')}`] : []),
    ...part.twins.map((twin) => ` look-alike: ${twin.what}. ${twin.tell}`),
  ].join('\n');
}

/** Which part sheets printed labels and other clues may belong to. Exit code 1 where none fits. */
function identify(io: Io, sheets: Sheets, options: IdentifyOptions): ExitCode {
  const parts = [...sheets.parts.values()].map((p) => p.sheet);
  const { candidates, settle } = identifyPart(parts, readClues(options));
  if (options.json) {
    const said = candidates.map(({ part, score, speaksFor, speaksAgainst }) => ({
      part: part.id,
      title: part.title,
      family: part.family,
      score: Number(score.toFixed(3)),
      for: speaksFor.map(evidenceText),
      against: speaksAgainst.map(evidenceText),
      twins: part.twins,
    }));
    io.out(JSON.stringify({ candidates: said, settle }, null, 2));
  } else {
    io.out(candidates.length === 0 ? 'No part matches.' : candidates.map(asText).join('\n'));
    for (const question of settle) io.out(`to tell them apart: ${question}`);
  }
  return candidates.length === 0 ? EXIT.clashes : EXIT.clean;
}

export const registerIdentify: RegisterCommand = (program, { io, catalogue, done }) => {
  program
    .command('identify')
    .description('Identifies a part by its printed labels and other clues.')
    .option('--labels <row>', 'printed labels in order: "GND VCC D0 D1 RES DC CS"')
    .option('--pins <count>', 'number of pins')
    .option('--size <size>', 'size in inches or resolution: 0.96, 128x64')
    .option('--does <words>', 'function: temperature')
    .option('--chip <marking>', 'chip marking')
    .option('--json', 'candidates as JSON', false)
    .action((options: IdentifyOptions) => done(identify(io, catalogue.sheets(), options)));
};
