import type { RequestHandler } from 'express';
import type { GoneEvent, RevisionEvent } from '@roof-chart/api/planEvents';
import { idSchema } from '@roof-chart/core/plan/planSchema';
import type { PlanStore } from '../store/planStore';
import { route, valid } from './apiError';

const BEAT_MS = 25_000;
const MOST_LISTENERS = 200;

let open = 0;

/** Server-sent events of one plan: `revision` with the number and the life of the database, at the start and after every
 *  change; `gone` where there is no such plan, or it was deleted. What changed is not sent: a client that cares reads the plan. */
export function planEvents(store: PlanStore): RequestHandler {
  return route((req, res) => {
    const id = valid<string>(idSchema.required(), req.params['id'], 'id');
    if (open >= MOST_LISTENERS) return void res.status(204).end();
    open += 1;
    res.status(200).set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform', Connection: 'keep-alive' });
    res.flushHeaders();
    const send = (revision: number | null) => {
      const { epoch } = store;
      const [event, data] =
        revision === null ? ['gone', { epoch } satisfies GoneEvent] : ['revision', { revision, epoch } satisfies RevisionEvent];
      res.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
    };
    send(store.revisionOf(id) ?? null);
    const stop = store.listen((planId, revision) => {
      if (planId === id) send(revision);
    });
    const beat = setInterval(() => void res.write(': \n\n'), BEAT_MS);
    res.on('close', () => {
      open -= 1;
      stop();
      clearInterval(beat);
    });
  });
}
