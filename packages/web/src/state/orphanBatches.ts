import { nextBatches, type PlanRequests } from './planRequests';
import { openTabs, tabId } from './tabIdentity';
import { adoptBatches, forgetBatches, plansWithOrphans } from './waitingBatches';

const TRIES = 4;

/** Whether a tab is still open to send its own batches. Where the browser cannot tell, only this one counts as open. */
async function tabCheck(): Promise<(tab: string) => boolean> {
  const [open, own] = await Promise.all([openTabs(), tabId()]);
  return (tab) => tab !== own && (open?.has(tab) ?? false);
}

/** The batches of a plan that no other tab will send, made this tab's; those that the server has already are forgotten.
 *  @param own whether this tab's own are among them: only while no saver of it is sending them */
export async function takeOverBatches(requests: PlanRequests, planId: string, own: boolean) {
  const batches = await adoptBatches(planId, await tabId(), { isOpen: await tabCheck(), own });
  const taken = await requests.taken(planId, batches);
  await forgetBatches(planId, [...taken]);
  return batches.filter((batch) => !taken.has(batch.id));
}

/** Sends what a closed tab left behind for one plan that is not open.
 *  @returns whether everything of it is on the server */
async function sendFor(requests: PlanRequests, planId: string): Promise<boolean> {
  let batches = await takeOverBatches(requests, planId, true);
  for (let attempt = 0; attempt < TRIES && batches.length > 0; attempt += 1) {
    const now = await requests.read(planId);
    if (typeof now === 'string' || 'trouble' in now) return false;
    const next = nextBatches(batches);
    const answer = await requests.send(planId, now, next);
    if (answer.kind === 'done') {
      await forgetBatches(
        planId,
        next.map((batch) => batch.id),
      );
      batches = batches.slice(next.length);
      attempt = -1;
    } else if (answer.kind !== 'stale') return false;
  }
  return batches.length === 0;
}

/** Sends the unsent edits of closed tabs, plan by plan. Refused edits stay until their plan is opened, where they are reported.
 *  @param openPlan the plan whose document is open here: its own saver sends for it
 *  @returns plans whose edits could not be sent */
export async function sendOrphans(requests: PlanRequests, openPlan: string | undefined): Promise<readonly string[]> {
  const isOpen = await tabCheck();
  const plans = (await plansWithOrphans(isOpen)).filter((planId) => planId !== openPlan);
  const left: string[] = [];
  for (const planId of plans) if (!(await sendFor(requests, planId))) left.push(planId);
  return left;
}
