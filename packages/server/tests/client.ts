import { randomUUID } from 'node:crypto';
import request from 'supertest';
import type { Edit } from '@roof-chart/core/plan/edit';
import type { Plan } from '@roof-chart/core/plan/plan';
import type { Served } from './serve';

export const oled = {
  kind: 'add-placement',
  placement: { id: 'display-1', sheet: { id: 'oled-096-ssd1306-i2c', version: 1 }, name: 'Glass', straps: {} },
} as const satisfies Edit;
export const sda = (pin: string): Edit => ({ kind: 'wire', placement: 'display-1', terminal: 'SDA', end: { to: 'pin', pin } });

/** Requests of a client to the server that runs in a test file. */
export function clientOf(served: () => Served) {
  const api = () => request(served().app);
  /** The ETag of a revision in this database. */
  const tag = (revision: number) => `"${revision}-${served().store.epoch}"`;
  const sendBatches = (id: string, revision: number | null, batches: unknown) => {
    const call = api().post(`/api/plans/${id}/edits`);
    return (revision === null ? call : call.set('If-Match', tag(revision))).send({ batches } as object);
  };
  return {
    api,
    tag,
    sendBatches,
    edit: (id: string, revision: number | null, edits: unknown, batch: string = randomUUID()) =>
      sendBatches(id, revision, [{ batch, edits }]),
    newPlan: async (name = 'Bench'): Promise<string> => {
      const response = await api().post('/api/plans').send({ name, board: 'rp2040-stick-40' }).expect(201);
      return (response.body as { plan: Plan }).plan.id;
    },
    stored: async (id: string) => (await api().get(`/api/plans/${id}`).expect(200)).body as { plan: Plan; revision: number },
  };
}
