import { firstOrThrow } from '@roof-chart/core/collections/orThrow';
import { Button, Modal } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useNavigate } from 'react-router';
import { diffPlans } from '@roof-chart/core/plan/diffPlans';
import type { Plan } from '@roof-chart/core/plan/plan';
import { planDocument } from '@roof-chart/core/plan/planFile';
import { PLAN_LIMITS } from '@roof-chart/core/plan/plan';
import { defaultStrap } from '@roof-chart/core/sheets/defaultStrap';
import type { StoredPlan } from '@roof-chart/api/storedPlan';
import { failureWords, useOpenPlanFileMutation } from '../state/api';
import { documentActions } from '../state/documentSlice';
import { rebase } from '../state/saver';
import { useAppDispatch, useAppSelector } from '../state/store';
import { forgetBatches } from '../state/waitingBatches';
import { PlanDifference } from './versions/PlanDifference';
import styles from './PlanChoice.module.css';
import { useWorkbench } from '../state/workbench';

/** The plan as it is here, as a batch of edits on what the server holds. */
function useOverwrite(plan: Plan, server: StoredPlan | 'gone') {
  const dispatch = useAppDispatch();
  const { sheets } = useWorkbench();
  return () => {
    if (server === 'gone') return;
    const edits = diffPlans(server.plan, plan, (part, strap) => defaultStrap(sheets, part, strap));
    const batch = { id: crypto.randomUUID(), edits, label: 'Kept this tab’s plan after the server’s data was restored' };
    const result = rebase(server.plan, edits.length > 0 ? [batch] : [], sheets);
    if (result.lost.length > 0) {
      const { path, expected } = firstOrThrow(result.lost).problem;
      return void notifications.show({
        color: 'brick',
        message: `Not possible: ${path} must be ${expected}. Save it as a new plan instead.`,
      });
    }
    const { revision, epoch } = server;
    dispatch(documentActions.rebased({ plan: result.plan, ground: server.plan, revision, epoch, waiting: result.waiting }));
  };
}

function useKeepAsNew(plan: Plan) {
  const [open, opening] = useOpenPlanFileMutation();
  const { sheets } = useWorkbench();
  const navigate = useNavigate();
  const waiting = useAppSelector((state) => state.document.waiting);
  const dispatch = useAppDispatch();
  const keep = async () => {
    const name = `${plan.name.slice(0, PLAN_LIMITS.nameLength - 12)} (this tab)`;
    const result = await open(planDocument({ ...plan, name }, sheets));
    if (result.error) return void notifications.show({ color: 'brick', message: failureWords(result.error) });
    await forgetBatches(
      plan.id,
      waiting.map((batch) => batch.id),
    ).catch(() => undefined);
    dispatch(documentActions.closed());
    void navigate(`/plans/${result.data.plan.id}/chart`);
  };
  return { keep, isKeeping: opening.isLoading };
}

function Choice({ plan, server }: { readonly plan: Plan; readonly server: StoredPlan | 'gone' }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const overwrite = useOverwrite(plan, server);
  const { keep, isKeeping } = useKeepAsNew(plan);
  const takeServer = () => {
    if (server === 'gone') {
      dispatch(documentActions.closed());
      return void navigate('/');
    }
    const { plan: ground, revision, epoch } = server;
    dispatch(documentActions.rebased({ plan: ground, ground, revision, epoch, waiting: [] }));
  };
  return (
    <>
      <p>
        {server === 'gone'
          ? 'The server’s data was restored from a backup or reset and no longer contains this plan. This tab still has it.'
          : 'The server’s data was restored from a backup or reset; its plan differs from the one in this tab. Nothing is saved until you choose.'}
      </p>
      {server !== 'gone' && (
        <section className={styles.difference} aria-label="Changes in the server’s plan">
          <h3 className={styles.heading}>Changes in the server’s plan</h3>
          <PlanDifference plan={plan} kept={server.plan} />
        </section>
      )}
      <div className={styles.choices}>
        {server !== 'gone' && (
          <Button onClick={overwrite} data-autofocus>
            Keep this tab’s plan
          </Button>
        )}
        <Button variant="default" onClick={() => void keep()} loading={isKeeping}>
          Save it as a new plan
        </Button>
        <Button variant="default" color="brick" onClick={takeServer}>
          {server === 'gone' ? 'Discard it' : 'Use the server’s plan'}
        </Button>
      </div>
    </>
  );
}

/** Asks which of two plans to use after the server's database was restored or reset. */
export function PlanChoice() {
  const plan = useAppSelector((state) => state.document.plan);
  const server = useAppSelector((state) => state.document.choice);
  return (
    <Modal
      opened={plan !== null && server !== null}
      onClose={() => undefined}
      withCloseButton={false}
      closeOnEscape={false}
      closeOnClickOutside={false}
      title="Two versions of this plan"
      size="lg"
      transitionProps={{ duration: 0 }}
    >
      {plan && server && <Choice plan={plan} server={server} />}
    </Modal>
  );
}
