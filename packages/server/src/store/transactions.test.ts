import { serve, editOnce, type Served } from '../../tests/serve';
import { PlanEntity } from './rows';
import { Transactions } from './transactions';

let served: Served;
beforeEach(async () => void (served = await serve()));
afterEach(() => served.close());

test('what fails in the middle leaves nothing, and the next transaction is one of its own', () => {
  const { transactions } = served.store;
  const { plan } = served.store.createEmpty('A', { id: 'rp2040-stick-40', version: 1 });
  expect(() =>
    transactions.write((statements) => {
      statements.update(PlanEntity, { id: plan.id }, { name: 'Half' });
      throw new Error('in the middle');
    }),
  ).toThrow('in the middle');
  expect(served.database.connection.inTransaction).toBe(false);
  expect(transactions.statements.first(PlanEntity, { id: plan.id })!.name).toBe('A');
});

test('a COMMIT that fails and rolls back by itself leaves no transaction open', () => {
  const { connection } = served.database;
  connection.exec('CREATE TABLE parents (id INTEGER PRIMARY KEY)');
  connection.exec('CREATE TABLE children (parent INTEGER REFERENCES parents (id) DEFERRABLE INITIALLY DEFERRED)');
  const { transactions } = served.store;
  // A deferred constraint is what makes COMMIT itself fail, as a full disk does.
  expect(() => transactions.write(() => connection.exec('INSERT INTO children VALUES (7)'))).toThrow('FOREIGN KEY');
  expect(connection.inTransaction).toBe(false);
  const { plan } = served.store.createEmpty('After', { id: 'rp2040-stick-40', version: 1 });
  expect(editOnce(served.store, plan.id, 1, 'b1', [{ kind: 'rename-plan', name: 'On the disk' }])).toEqual({ kind: 'done', revision: 2 });
  expect(connection.prepare('SELECT count(*) FROM children').pluck().get()).toBe(0);
});

test('a transaction within a transaction is a mistake of the program, told at once', () => {
  const { transactions } = served.store;
  expect(() => transactions.write(() => transactions.write(() => 1))).toThrow('A transaction is open already');
});

test('a connection in an unknown state stops the process instead of acknowledging anything', () => {
  const reasons: string[] = [];
  const { connection } = served.database;
  const transactions = new Transactions(served.database, (reason) => reasons.push(reason));
  const exec = connection.exec.bind(connection);
  const failing = jest.spyOn(connection, 'exec').mockImplementation((sql: string) => (sql === 'COMMIT' ? connection : exec(sql)));
  transactions.write(() => undefined);
  failing.mockRestore();
  expect(reasons).toEqual(['A transaction is still open after its COMMIT.']);
  exec('ROLLBACK');
});
