import { Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import { firstLights, lightStep } from '@roof-chart/core/bench/firstLight';
import { partFace } from '@roof-chart/core/faces/partFace';
import { partOf } from '@roof-chart/core/plan/edit';
import { placementText } from '@roof-chart/core/text/names';
import type { Plan } from '@roof-chart/core/plan/plan';
import { useWorkbench } from '../../state/workbench';
import { FacePicture } from '../../ui/face/Face';
import styles from './BringUp.module.css';

/** Causes beyond these are too unlikely to look at first. */
const SHOWN = 6;

/** The likeness of a part, so that it is found on the bench. */
function PartPicture({ plan, placement }: { readonly plan: Plan; readonly placement: string }) {
  const { sheets } = useWorkbench();
  const part = partOf(plan, placement, sheets)?.sheet;
  return (
    <div className={styles.lightFace} aria-hidden>
      {part && <FacePicture face={partFace(part)} labels={false} maxScale={2.6} />}
    </div>
  );
}

/** What to see at each part when power comes on, and where to look when it is not there. */
export function FirstLightList({ plan }: { readonly plan: Plan }) {
  const { sheets, edit } = useWorkbench();
  const lights = useMemo(() => firstLights(plan, sheets), [plan, sheets]);
  return (
    <ul className={styles.lights}>
      {lights.map(({ placement, see, causes, seen }) => {
        const name = placementText(plan, placement);
        return (
          <li key={placement} className={styles.light}>
            <PartPicture plan={plan} placement={placement} />
            <div className={styles.lightWords}>
              <Checkbox
                checked={seen}
                color="dark.6"
                label={<strong>{name}</strong>}
                aria-label={`${name}: works`}
                onChange={(event) =>
                  edit([{ kind: 'step', step: lightStep(placement), done: event.currentTarget.checked ? 'seen' : null }])
                }
              />
              <p className={styles.see}>{see}</p>
              {!seen && causes.length > 0 && (
                <details>
                  <summary>Not working? Check in this order</summary>
                  <ol>
                    {causes.slice(0, SHOWN).map((cause) => (
                      <li key={cause.words}>{cause.words}</li>
                    ))}
                  </ol>
                </details>
              )}
            </div>
          </li>
        );
      })}
    </ul>
  );
}
