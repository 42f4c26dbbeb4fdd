import clsx from 'clsx';
import { Button, Collapse, CopyButton, UnstyledButton } from '@mantine/core';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import { type Finding, LEVELS } from '@roof-chart/core/checks/engine/check';
import { CHECKS } from '@roof-chart/core/checks/engine/registry';
import { type FindingText, factGroupsText, describeFinding, placeText } from '@roof-chart/core/text/describe';
import { LEVEL_TEXT } from '@roof-chart/core/text/names';
import { Unbroken } from '../Unbroken';
import type { Plan } from '@roof-chart/core/plan/plan';
import { counted } from '@roof-chart/core/quantity/format';
import { selectFindingCounts, selectFindings, selectReviewed, selectSortedFindings } from '../../state/selectors';
import { useWorkbench } from '../../state/workbench';
import { type Reviewed, reviewActions } from '../../state/reviewSlice';
import { sessionActions } from '../../state/sessionSlice';
import { useAppDispatch, useAppSelector } from '../../state/store';
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

/** Text, fixes and actions of a chosen finding, below its line in the list. */
function FindingDetail({
  reviewed,
  finding,
  said,
}: {
  readonly reviewed: Reviewed;
  readonly finding: Finding;
  readonly said: FindingText;
}) {
  const [open, setOpen] = useState(false);
  return (
    <div className={styles.detail}>
      <p className={styles.text}>
        <Unbroken text={said.text} />
      </p>
      {finding.accepted === undefined && <Remedies plan={reviewed.plan} finding={finding} />}
      <div className={styles.actions}>
        <UnstyledButton className={styles.why} aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Less' : 'Why'}
        </UnstyledButton>
        <CopyLink plan={reviewed.plan} finding={finding} view={findingView(finding)} />
        <AcceptFinding finding={finding} title={said.title} />
      </div>
      <Collapse expanded={open} transitionDuration={0}>
        <p className={styles.text}>
          <Unbroken text={said.why} />
        </p>
        {said.source && <p className={styles.source}>Source: {said.source}</p>}
        <p className={styles.source}>
          Check <code>{finding.code}</code>
        </p>
      </Collapse>
    </div>
  );
}

/** One line per finding: mark, title and place. Chosen, it opens and its place is shown; chosen again, it closes. */
function FindingCard({ reviewed, finding }: { readonly reviewed: Reviewed; readonly finding: Finding }) {
  const { sheets } = useWorkbench();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const chosen = useAppSelector((state) => state.session.finding === finding.id);
  const said = useMemo(() => describeFinding(reviewed.plan, sheets, finding), [reviewed, sheets, finding]);
  const place = placeText(reviewed.plan, sheets, finding.place, said.title);
  const choose = () => {
    if (chosen) dispatch(sessionActions.findingChosen({ finding: null }));
    else void navigate(`/plans/${reviewed.plan.id}/${findingView(finding)}?finding=${encodeURIComponent(finding.id)}`);
  };
  return (
    <li className={clsx(styles.finding, chosen && styles.chosen)} data-code={finding.code}>
      <UnstyledButton className={styles.title} onClick={choose} aria-expanded={chosen}>
        <LevelMark level={finding.level} />
        <span className={styles.titleText}>
          <Unbroken text={said.title} />
        </span>
        {place !== '' && <span className={styles.place}>{place}</span>}
      </UnstyledButton>
      {chosen && <FindingDetail reviewed={reviewed} finding={finding} said={said} />}
    </li>
  );
}

/** The finding named in the address is chosen: its place gets the focus. A finding that no longer exists is ignored. */
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
        <summary>List of checks</summary>
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

/** The facts that no source confirms: one line, always in the same place, which opens the list of sheets. */
function Facts({ reviewed, findings }: { readonly reviewed: Reviewed; readonly findings: readonly Finding[] }) {
  const { sheets } = useWorkbench();
  return findings.map((finding) => {
    const said = describeFinding(reviewed.plan, sheets, finding);
    const { facts } = finding.data;
    return (
      <details key={finding.id} className={styles.facts} data-code={finding.code}>
        <summary>
          <LevelMark level={finding.level} />
          <span>
            <Unbroken text={said.title} />
          </span>
        </summary>
        <p className={styles.text}>
          <Unbroken text={said.text} />
        </p>
        {facts?.is === 'facts' && (
          <ul className={styles.factList}>
            {factGroupsText(sheets, facts.of).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        )}
        <div className={styles.actions}>
          <Link className={styles.why} to={`/plans/${reviewed.plan.id}/facts`}>
            Show and confirm
          </Link>
          <AcceptFinding finding={finding} title={said.title} />
        </div>
      </details>
    );
  });
}

/** The plan as it is now has no review: nothing older is shown in its place. */
function NotChecked({ reason }: { readonly reason: string }) {
  const dispatch = useAppDispatch();
  return (
    <div role="alert" className={styles.text}>
      <p>Checks are not running: {reason} Editing and saving still work.</p>
      <Button size="compact-xs" variant="default" onClick={() => void dispatch(reviewActions.requested())}>
        Check again
      </Button>
    </div>
  );
}

/** @param parts number of parts in the plan; with the plan itself the rail would be drawn anew at every edit */
export const FindingsRail = memo(function FindingsRail({ parts }: { readonly parts: number }) {
  const reviewed = useAppSelector(selectReviewed);
  const failure = useAppSelector((state) => state.review.failure);
  const { open, facts, accepted } = useAppSelector(selectSortedFindings);
  const counts = useAppSelector(selectFindingCounts);
  useFindingOfAddress(useAppSelector(selectFindings));
  const words = LEVELS.map((level) => counted(counts[level], LEVEL_TEXT[level])).join(', ');
  return (
    <aside className={styles.rail} aria-label="Findings">
      <h2 className={styles.heading}>
        Findings
        {reviewed && (
          <span className="num" title={words} aria-label={words}>
            {LEVELS.map((level) => counts[level]).join(' · ')}
          </span>
        )}
      </h2>
      {reviewed && <FixSafe plan={reviewed.plan} findings={open} />}
      {reviewed &&
        LEVELS.map((level) => (
          <Group key={level} reviewed={reviewed} title={`${LEVEL_TEXT[level]}s`} findings={open.filter((f) => f.level === level)} />
        ))}
      {reviewed && open.length === 0 && (
        <p className={styles.clean}>
          {parts === 0 ? 'Nothing to check yet: add a part in Parts.' : `No issues found. ${CHECKS.length} checks passed.`}
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
