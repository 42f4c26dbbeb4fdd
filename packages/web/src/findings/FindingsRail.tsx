import { Button, Collapse, CopyButton, UnstyledButton } from '@mantine/core';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import { type Finding, type Level, LEVELS } from '@roof-chart/core/checks/check';
import { CHECKS, isAboutFacts } from '@roof-chart/core/checks/registry';
import { LEVEL_WORDS, sayFinding } from '@roof-chart/core/checks/say';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { useReviewed, useReviewFailure, useWorkbench } from '../app/workbench';
import type { Reviewed } from '../review/reviewFeed';
import { sessionActions } from '../store/sessionSlice';
import { useAppDispatch, useAppSelector } from '../store/store';
import { AcceptFinding } from './AcceptFinding';
import { Alternatives } from './Alternatives';
import styles from './FindingsRail.module.css';
import { findingView } from './findingView';
import { FixSafe } from './FixSafe';
import { LevelMark } from './LevelMark';
import { RemedyButton } from './RemedyButton';

function Remedies({ plan, finding }: { readonly plan: Plan; readonly finding: Finding }) {
  if (finding.remedies.length === 0 && finding.level !== 'hint') return <Alternatives plan={plan} finding={finding} />;
  if (finding.remedies.length === 0) return null;
  return (
    <div className={styles.remedies}>
      {finding.remedies.map((remedy, index) => (
        <RemedyButton key={index} plan={plan} finding={finding} remedy={remedy} />
      ))}
    </div>
  );
}

function CopyLink({ plan, finding, view }: { readonly plan: Plan; readonly finding: Finding; readonly view: string }) {
  const link = `${location.origin}/plans/${plan.id}/${view}?finding=${encodeURIComponent(finding.id)}`;
  return (
    <CopyButton value={link}>
      {({ copied, copy }) => (
        <UnstyledButton className={styles.why} onClick={copy}>
          {copied ? 'Link copied' : 'Copy link'}
        </UnstyledButton>
      )}
    </CopyButton>
  );
}

function FindingCard({ reviewed, finding }: { readonly reviewed: Reviewed; readonly finding: Finding }) {
  const { sheets } = useWorkbench();
  const navigate = useNavigate();
  const chosen = useAppSelector((state) => state.session.finding === finding.id);
  const [open, setOpen] = useState(false);
  const said = sayFinding(reviewed.plan, sheets, finding);
  const view = findingView(finding);
  const choose = () => void navigate(`/plans/${reviewed.plan.id}/${view}?finding=${encodeURIComponent(finding.id)}`);
  return (
    <li className={chosen ? `${styles.finding} ${styles.chosen}` : styles.finding} data-code={finding.code}>
      <UnstyledButton className={styles.title} onClick={choose} aria-pressed={chosen}>
        <LevelMark level={finding.level} />
        <span>{said.title}</span>
      </UnstyledButton>
      <p className={styles.text}>{said.text}</p>
      {finding.accepted === undefined && <Remedies plan={reviewed.plan} finding={finding} />}
      <div className={styles.actions}>
        <UnstyledButton className={styles.why} aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Less' : 'Why'}
        </UnstyledButton>
        <CopyLink plan={reviewed.plan} finding={finding} view={view} />
        <AcceptFinding finding={finding} title={said.title} />
      </div>
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

/** The finding named in the address is chosen: its place gets the focus. A finding that is gone is no error. */
function useFindingOfAddress(findings: readonly Finding[]): void {
  const dispatch = useAppDispatch();
  const { key } = useLocation();
  const [search] = useSearchParams();
  const wanted = search.get('finding');
  const found = wanted === null ? undefined : findings.find((f) => f.id === wanted);
  const latest = useRef(found);
  useEffect(() => {
    latest.current = found;
  });
  const id = found?.id;
  useEffect(() => {
    const now = latest.current;
    if (!id || !now) return;
    const terminal = now.place.terminals?.[0];
    const pin = now.place.pins?.[0];
    dispatch(sessionActions.findingChosen({ finding: now.id, ...(terminal ? { terminal, scope: 'all' } : {}), ...(pin ? { pin } : {}) }));
    // `key` is new at every click, so that choosing the same finding again leads back to it.
  }, [id, key, dispatch]);
}

/** What is looked at so far: a clean rail must not be taken for more than it is. */
function Scope() {
  return (
    <div className={styles.scope}>
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

function Group({
  reviewed,
  title,
  findings,
}: {
  readonly reviewed: Reviewed;
  readonly title: string;
  readonly findings: readonly Finding[];
}) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={title}>
      <ul className={styles.list}>
        {findings.map((finding) => (
          <FindingCard key={finding.id} reviewed={reviewed} finding={finding} />
        ))}
      </ul>
    </section>
  );
}

/** What the sheets only take for typical: quieter than what is wrong with the plan, and always of the same place. */
function Facts({ reviewed, findings }: { readonly reviewed: Reviewed; readonly findings: readonly Finding[] }) {
  const { sheets } = useWorkbench();
  return findings.map((finding) => {
    const said = sayFinding(reviewed.plan, sheets, finding);
    return (
      <section key={finding.id} aria-label="Facts" className={styles.facts} data-code={finding.code}>
        <p className={styles.factsTitle}>
          <LevelMark level={finding.level} />
          <span>{said.title}</span>
        </p>
        <p className={styles.text}>{said.text}</p>
        <div className={styles.actions}>
          <Link className={styles.why} to={`/plans/${reviewed.plan.id}/facts`}>
            See and confirm them
          </Link>
          <AcceptFinding finding={finding} title={said.title} />
        </div>
      </section>
    );
  });
}

/** The plan as it is now has no review: nothing older is shown in its place. */
function NotChecked({ reason }: { readonly reason: string }) {
  const { feed } = useWorkbench();
  return (
    <div role="alert" className={styles.text}>
      <p>The plan is not checked just now: {reason} Editing and saving go on.</p>
      <Button size="compact-xs" variant="default" onClick={() => feed.retry()}>
        Check again
      </Button>
    </div>
  );
}

/** @param parts number of parts in the plan; with the plan itself the rail would be drawn anew at every edit */
export const FindingsRail = memo(function FindingsRail({ parts }: { readonly parts: number }) {
  const reviewed = useReviewed();
  const failure = useReviewFailure();
  const findings = useMemo(() => (reviewed?.result.ok ? reviewed.result.review.findings : []), [reviewed]);
  useFindingOfAddress(findings);
  const open = findings.filter((f) => f.accepted === undefined && !isAboutFacts(f));
  const facts = findings.filter((f) => f.accepted === undefined && isAboutFacts(f));
  const accepted = findings.filter((f) => f.accepted !== undefined);
  const count = (level: Level) => open.filter((f) => f.level === level).length;
  const words = LEVELS.map((level) => counted(count(level), LEVEL_WORDS[level])).join(', ');
  return (
    <aside className={styles.rail} aria-label="Findings">
      <h2 className={styles.heading}>
        Findings
        <span className="num" title={words} aria-label={words}>
          {LEVELS.map(count).join(' · ')}
        </span>
      </h2>
      {reviewed && <FixSafe plan={reviewed.plan} findings={open} />}
      {reviewed &&
        LEVELS.map((level) => (
          <Group key={level} reviewed={reviewed} title={`${LEVEL_WORDS[level]}s`} findings={open.filter((f) => f.level === level)} />
        ))}
      {reviewed && open.length === 0 && (
        <p className={styles.clean}>
          {parts === 0 ? 'Nothing to check yet. Open Parts and add one.' : `No issues found. ${CHECKS.length} checks passed.`}
        </p>
      )}
      {reviewed && <Facts reviewed={reviewed} findings={facts} />}
      {reviewed && accepted.length > 0 && (
        <details className={styles.accepted}>
          <summary>{accepted.length} accepted</summary>
          <Group reviewed={reviewed} title="accepted" findings={accepted} />
        </details>
      )}
      {!reviewed && failure === null && <p className={styles.text}>Checking…</p>}
      {failure !== null && <NotChecked reason={failure} />}
      <Scope />
    </aside>
  );
});
