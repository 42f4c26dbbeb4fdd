import { type Rescued, rescuePlanFile } from '@roof-chart/core/plan/rescuePlan';

type Leftovers = Extract<Rescued, { readonly ok: true }>['leftovers'];

/** The text of a plan file as it is sent to the server, with what could not be read of it. */
export type PlanFileText =
  { readonly ok: true; readonly document: unknown; readonly leftovers: Leftovers } | { readonly ok: false; readonly fault: string };

/** Reads the text of a plan file as far as it goes. */
export function readPlanText(text: string): PlanFileText {
  let document: unknown;
  try {
    document = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    return { ok: false, fault: `not valid JSON: ${(error as Error).message}` };
  }
  const rescued = rescuePlanFile(document);
  if (!rescued.ok) return { ok: false, fault: `${rescued.path}: ${rescued.fault}` };
  const { leftovers, file } = rescued;
  return { ok: true, document: leftovers.length === 0 ? document : { ...file.plan, sheets: file.sheets }, leftovers };
}
