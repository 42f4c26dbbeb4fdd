/** @jest-environment jsdom */
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { useEffect } from 'react';
import { Route, Routes, useNavigate } from 'react-router';
import { shippedSheets } from '../../../../core/tests/catalogue';
import { stick } from '../../../../core/tests/makePlan';
import { sheetJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import { mount } from '../../../tests/mount';
import { api } from '../../state/api';
import type { Shape } from '../../state/sheetShape';
import { SheetEditor } from './SheetEditor';

const sheets = shippedSheets();
const open = async (path: string) => {
  const mounted = mount(
    <Routes>
      <Route path="/sheets/:id/edit" element={<SheetEditor />} />
      <Route path="/sheets" element={<p>All sheets</p>} />
    </Routes>,
    stick(),
    sheets,
    { path, prepare: (store) => store.dispatch(api.util.upsertQueryData('sheetSchema', 'part', sheetJsonSchema('part') as Shape)) },
  );
  await waitFor(() => expect(screen.queryByText('Loading the fields…')).toBeNull());
  return mounted;
};
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Save/ });
const asText = async (user: ReturnType<typeof mount>['user']) => {
  await user.click(screen.getByRole('radio', { name: 'Text (JSON)' }));
  return screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'The sheet as JSON' });
};

beforeEach(() => localStorage.clear());

test('a copy has an ID and a title of its own and is valid; no facts are listed as changed', async () => {
  await open('/sheets/led-red-5mm/edit?copy');
  expect(screen.getByText('Valid.')).toBeTruthy();
  expect(save().disabled).toBe(false);
  expect(screen.getByDisplayValue('my-led-red-5mm')).toBeTruthy();
  expect(screen.queryByText('Changed facts')).toBeNull();
});

test('a faulty field is told with its place and cannot be saved; its fault leads to the field', async () => {
  const { user } = await open('/sheets/led-red-5mm/edit?copy');
  const id = screen.getByDisplayValue('my-led-red-5mm');
  fireEvent.change(id, { target: { value: 'My LED' } });
  await waitFor(() => expect(screen.getByText('1 fault:')).toBeTruthy());
  expect(save().disabled).toBe(true);
  const [fault] = screen.getAllByRole('listitem').flatMap((one) => (one.textContent?.includes('ID') ? [one.querySelector('button')!] : []));
  await user.click(fault!);
  await waitFor(() => expect(document.activeElement).toBe(id));
  fireEvent.change(id, { target: { value: 'my-led' } });
  await waitFor(() => expect(save().disabled).toBe(false));
});

test('text that is no JSON is told with its line; the fields wait until it is', async () => {
  const { user } = await open('/sheets/led-red-5mm/edit');
  const text = await asText(user);
  fireEvent.change(text, { target: { value: '{\n  "kind": "part",,\n}' } });
  await waitFor(() => expect(screen.getByText('line 2')).toBeTruthy());
  expect(save().disabled).toBe(true);
  await user.click(screen.getByRole('radio', { name: 'Fields' }));
  expect(screen.getByText(/^The text is not valid JSON/)).toBeTruthy();
});

test('what was typed stays as a draft until it is discarded; changed facts are listed', async () => {
  await open('/sheets/led-red-5mm/edit');
  fireEvent.change(screen.getByDisplayValue('LED, red, 5 mm'), { target: { value: 'LED, red, 3 mm' } });
  await waitFor(() => expect(screen.getByText('Changed facts')).toBeTruthy());
  expect(screen.getByText(/LED, red, 5 mm → LED, red, 3 mm/)).toBeTruthy();
  cleanup();
  const again = await open('/sheets/led-red-5mm/edit');
  expect(screen.getByText(/Unsaved changes from your last visit/)).toBeTruthy();
  await again.user.click(screen.getByRole('button', { name: 'Discard them' }));
  expect(screen.getByDisplayValue('LED, red, 5 mm')).toBeTruthy();
  expect(localStorage).toHaveLength(0);
});

test('a sheet that the server does not take stays in the editor, with the reason', async () => {
  const { user } = await open('/sheets/led-red-5mm/edit?copy');
  await user.click(save());
  await waitFor(() => expect(screen.getByText('The server is not responding. Nothing was changed.')).toBeTruthy());
  expect(screen.getByDisplayValue('my-led-red-5mm')).toBeTruthy();
});

test('a sheet that does not exist leads to the list', async () => {
  await open('/sheets/nothing/edit');
  expect(screen.getByText('All sheets')).toBeTruthy();
});

test('from one editor to another, as by the back button, no text comes along', async () => {
  const go: { to?: (path: string) => void } = {};
  function Mover() {
    const navigate = useNavigate();
    useEffect(() => {
      go.to = (path) => void navigate(path);
    });
    return <SheetEditor />;
  }
  mount(
    <Routes>
      <Route path="/sheets/:id/edit" element={<Mover />} />
    </Routes>,
    stick(),
    sheets,
    {
      path: '/sheets/led-red-5mm/edit?copy',
      prepare: (store) => store.dispatch(api.util.upsertQueryData('sheetSchema', 'part', sheetJsonSchema('part') as Shape)),
    },
  );
  await waitFor(() => expect(screen.getByDisplayValue('my-led-red-5mm')).toBeTruthy());
  act(() => go.to!('/sheets/led-blue-5mm/edit?copy'));
  await waitFor(() => expect(screen.getByDisplayValue('my-led-blue-5mm')).toBeTruthy());
  expect(screen.queryByDisplayValue('my-led-red-5mm')).toBeNull();
  expect(localStorage.length).toBe(0);
});
