import { Button, Collapse, UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Finding, Level, Remedy } from '@roof-chart/core/checks/check';
import { CHECKS } from '@roof-chart/core/checks/registry';
import { sayFinding, sayRemedy } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useReviewed, useWorkbench } from '../app/workbench';
import type { Reviewed } from '../review/reviewFeed';
import { sessionActions } from '../store/sessionSlice';
import { useAppDispatch, useAppSelector } from '../store/store';
import styles from './FindingsRail.module.css';
import { LevelMark } from './LevelMark';

const GROUPS: readonly { readonly level: Level; readonly many: string; readonly one: string }[] = [
  { level: 'clash', many: 'clashes', one: 'clash' },
  { level: 'risk', many: 'risks', one: 'risk' },
  { level: 'hint', many: 'hints', one: 'hint' },
];

function Remedies({ plan, finding }: { readonly plan: Plan; readonly finding: Finding }) {
  const { sheets, edit } = useWorkbench();
  const take = (remedy: Remedy) => edit(remedy.edits, sayRemedy(plan, sheets, finding.code, remedy));
  if (finding.remedies.length === 0) return <p className={styles.none}>No change of one step helps here.</p>;
  return (
    <div className={styles.remedies}>
      {finding.remedies.map((remedy, index) => (
        <Button
          key={index}
          variant="outline"
          size="compact-xs"
          classNames={{ root: styles.remedy!, label: styles.remedyLabel! }}
          onClick={() => take(remedy)}
        >
          {sayRemedy(plan, sheets, finding.code, remedy)}
        </Button>
      ))}
    </div>
  );
}

function FindingCard({ reviewed, finding }: { readonly reviewed: Reviewed; readonly finding: Finding }) {
  const { sheets } = useWorkbench();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const chosen = useAppSelector((state) => state.session.finding === finding.id);
  const [open, setOpen] = useState(false);
  const said = sayFinding(reviewed.plan, sheets, finding);
  const choose = () => {
    const terminal = finding.place.terminals?.[0];
    const pin = finding.place.pins?.[0];
    dispatch(
      sessionActions.findingChosen({
        finding: finding.id,
        ...(terminal ? { terminal } : {}),
        ...(pin ? { pin } : {}),
        ...(terminal ? { scope: 'all' } : {}),
      }),
    );
    void navigate(`/plans/${reviewed.plan.id}/chart`);
  };
  return (
    <li className={chosen ? `${styles.finding} ${styles.chosen}` : styles.finding} data-code={finding.code}>
      <UnstyledButton className={styles.title} onClick={choose} aria-pressed={chosen}>
        <LevelMark level={finding.level} />
        <span>{said.title}</span>
      </UnstyledButton>
      <p className={styles.text}>{said.text}</p>
      <Remedies plan={reviewed.plan} finding={finding} />
      <UnstyledButton className={styles.why} aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Less' : 'Why'}
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        <p className={styles.text}>{said.why}</p>
        {said.source && <p className={styles.source}>Source: {said.source}</p>}
        <p className={styles.source}>
          Check <code>{finding.code}</code>
        </p>
      </Collapse>
    </li>
  );
}

/** What is looked at so far: a clean rail must not be taken for more than it is. */
function Scope() {
  return (
    <div className={styles.scope}>
      <p>
        <strong>Not yet checked:</strong> logic levels between 3.3 V and 5 V parts, pull-ups, bus speed, pin currents, resistors. Look at
        these yourself before you connect power.
      </p>
      <details>
        <summary>What is checked</summary>
        <ul>
          {CHECKS.map((check) => (
            <li key={check.code}>{check.question}</li>
          ))}
        </ul>
      </details>
    </div>
  );
}

export function FindingsRail({ plan }: { readonly plan: Plan }) {
  const reviewed = useReviewed();
  const findings = reviewed?.result.ok ? reviewed.result.review.findings : [];
  const count = (level: Level) => findings.filter((f) => f.level === level).length;
  const words = GROUPS.map(({ level, many, one }) => `${count(level)} ${count(level) === 1 ? one : many}`).join(', ');
  return (
    <aside className={styles.rail} aria-label="Findings">
      <h2 className={styles.heading}>
        Findings
        <span className="num" title={words} aria-label={words}>
          {GROUPS.map(({ level }) => count(level)).join(' · ')}
        </span>
      </h2>
      <ul className={styles.list}>
        {reviewed && findings.map((finding) => <FindingCard key={finding.id} reviewed={reviewed} finding={finding} />)}
      </ul>
      {reviewed && findings.length === 0 && (
        <p className={styles.clean}>
          {plan.placements.length === 0
            ? 'Nothing to check yet: add parts in Stock.'
            : 'No findings. Every check that exists so far is content with this plan.'}
        </p>
      )}
      {!reviewed && <p className={styles.text}>Checking…</p>}
      <Scope />
    </aside>
  );
}
