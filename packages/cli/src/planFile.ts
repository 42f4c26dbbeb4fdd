import { planSchema } from '@roof-chart/core/plan/planSchema';
import type { Plan } from '@roof-chart/core/plan/plan';
import { unsafePlace } from '@roof-chart/core/sheets/unsafePlace';
import { InputFault, type Io } from './io';

/** A JSON document from a file or standard input.
 *  @throws InputFault with the place where it stops being JSON */
export function readJson(io: Io, path: string): unknown {
  const text = io.read(path);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new InputFault(`${path}: not valid JSON: ${(error as Error).message}`);
  }
}

/** A plan from a file.
 *  @throws InputFault with the first place that is no plan */
export function readPlanFile(io: Io, path: string): Plan {
  const document = readJson(io, path);
  const unsafe = unsafePlace(document);
  if (unsafe !== undefined) throw new InputFault(`${path}: ${unsafe}: a key or a depth that no plan has`);
  const { error, value } = planSchema.validate(document, { convert: false });
  if (error) throw new InputFault(`${path}: ${error.details[0]!.path.join('.') || 'the document'}: ${error.message}`);
  return value as Plan;
}
