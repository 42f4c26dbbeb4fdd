import { Button } from '@mantine/core';
import { IconRoute } from '@tabler/icons-react';
import { useNavigate } from 'react-router';
import { boardFace } from '@roof-chart/core/faces/boardFace';
import { partFace } from '@roof-chart/core/faces/partFace';
import { failureWords, useCreatePlanMutation } from '../../state/api';
import { guideActions } from '../../state/guideSlice';
import { useAppDispatch } from '../../state/store';
import { useWorkbench } from '../../state/workbench';
import { FacePicture } from '../../ui/face/Face';
import styles from './Plans.module.css';

const BOARD = 'rp2040-stick-40';
const DISPLAY = 'oled-096-ssd1306-i2c';
const SENSOR = 'distance-ultrasonic-5v';

/** Makes the plan of the guided example, and opens it with its guide. */
function useGuidedExample() {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const [create, { isLoading, isError, error }] = useCreatePlanMutation();
  const start = async () => {
    const result = await create({ name: 'Guided example', board: BOARD });
    if (!result.data) return;
    dispatch(guideActions.guideStarted(result.data.plan.id));
    void navigate(`/plans/${result.data.plan.id}/stock`);
  };
  return { start: () => void start(), isLoading, failure: isError ? failureWords(error) : null };
}

/** What an empty list opens on: the way from a board to a build in five minutes. */
export function GuidedIntroduction() {
  const { sheets } = useWorkbench();
  const { start, isLoading, failure } = useGuidedExample();
  const board = sheets.boards.get(BOARD)?.sheet;
  const display = sheets.parts.get(DISPLAY)?.sheet;
  const sensor = sheets.parts.get(SENSOR)?.sheet;
  if (!board || !display || !sensor) return <p className="quiet">No plans yet. Choose your board below and create one.</p>;
  return (
    <div className={styles.introduction}>
      <div className={styles.introductionFaces}>
        <FacePicture face={boardFace(board)} labels={false} maxScale={3.4} />
        <FacePicture face={partFace(display)} labels={false} maxScale={3.4} />
        <FacePicture face={partFace(sensor)} labels={false} maxScale={3.4} />
      </div>
      <div>
        <h3>From a board to a build in five minutes</h3>
        <p>A display and a 5 V sensor on a 3.3 V board: add them, see what would damage the board, fix it, and get the list of wires.</p>
        <p className="quiet">Each step says what to do; leave it at any time. Or choose your own board below.</p>
        <Button leftSection={<IconRoute size={16} />} loading={isLoading} onClick={start}>
          Start the guided example
        </Button>
        {failure !== null && (
          <p className={styles.error} role="alert">
            {failure}
          </p>
        )}
      </div>
    </div>
  );
}

/** The same where there are plans already. */
export function GuidedLink() {
  const { start, isLoading, failure } = useGuidedExample();
  return (
    <>
      <Button variant="subtle" leftSection={<IconRoute size={16} />} loading={isLoading} onClick={start}>
        Guided example, 5 minutes
      </Button>
      {failure !== null && (
        <p className={styles.error} role="alert">
          {failure}
        </p>
      )}
    </>
  );
}
