import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, row, study } from '@/testing/study';
import ScopePage from './ScopePage.vue';

const server = fakeServer();
const PATH = '/api/v1/studies/meadow';
const rows = [
  row('mild', { label: 'Mild' }),
  row('mild-male', { label: 'Mild', parent: 'mild', stage: 'male' }),
  row('bane', { label: 'Bane', hazard: 'SERIOUS' }),
];

async function open(query = '', more: Partial<Schemas['StudyView']> = {}) {
  server.on(
    `GET ${PATH}`,
    study({
      rows,
      counts: { rows: [1, 0, 0], characters: [1], specimens: {} },
      revisions: { 'row/bane': 4, scope: 2 },
      ...more,
    }),
  );
  const page = await mountInStudy(ScopePage, `/studies/meadow/scope${query}`);
  await vi.waitFor(() => expect(page.all('[role=treeitem]')).toHaveLength(3));
  return page;
}

/** The input of the field with a label. */
function field(label: string): HTMLInputElement {
  // A field has a second label, without an address, that floats.
  const name = [...document.querySelectorAll('label')].find((l) => l.textContent?.trim() === label && l.htmlFor);
  const input = document.getElementById(name?.htmlFor ?? '');
  if (!input) throw new Error(`No field is called "${label}"`);
  return input as HTMLInputElement;
}

async function write(label: string, text: string) {
  const input = field(label);
  input.value = text;
  input.dispatchEvent(new Event('input', { bubbles: true }));
  await nextTick();
}

test('a taxon is chosen by a link, edited, and saved with what was seen of it', async () => {
  server.on(`PUT ${PATH}/rows/bane`, { id: 'bane', revision: 8 });
  const page = await open('?row=bane');
  await vi.waitFor(() => expect(field('Name').value).toBe('Bane'));
  await write('Name in plain words', 'the bane');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/rows/bane`)).toHaveLength(1));
  expect(server.bodies(`PUT ${PATH}/rows/bane`)[0]).toEqual({
    row: { ...rows[2], plain: 'the bane' },
    baseRevision: 4,
  });
  await vi.waitFor(() => expect(page.text()).toContain('Saved.'));
});

test('adding begins in the name, and Enter there saves it and begins the next', async () => {
  server.on(`POST ${PATH}/rows`, { id: 'calm', revision: 8 });
  const page = await open();
  page.byText('button', 'Add a taxon').click();
  await vi.waitFor(() => expect(field('Name').autofocus).toBe(true));
  await write('Name', 'Calm');
  server.on(
    `GET ${PATH}`,
    study({
      rows: [...rows, row('calm', { label: 'Calm' })],
      counts: { rows: [1, 0, 0, 0], characters: [1], specimens: {} },
    }),
  );
  field('Name').dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/rows`)).toMatchObject([{ row: { label: 'Calm' } }]));
  await vi.waitFor(() => expect(field('Name').value).toBe(''));
  await vi.waitFor(() => expect(field('Name').autofocus).toBe(true));
});

test('choosing another taxon asks before it loses what was typed', async () => {
  const page = await open('?row=bane');
  await vi.waitFor(() => expect(field('Name').value).toBe('Bane'));
  await write('Name', 'Bane nova');
  page.all('[role=treeitem]')[0]?.click();
  await vi.waitFor(() => expect(document.body.textContent).toContain('Discard what you typed?'));
  expect(page.router.currentRoute.value.query.row).toBe('bane');
  const dialog = document.querySelector('.v-dialog') as HTMLElement;
  [...dialog.querySelectorAll('button')].find((b) => b.textContent?.includes('Discard'))?.click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.row).toBe('mild'));
  await vi.waitFor(() => expect(field('Name').value).toBe('Mild'));
});

test('a sex or stage is begun with the name and the hazards of its taxon', async () => {
  server.on(`POST ${PATH}/rows`, { id: 'bane-young', revision: 8 });
  const page = await open('?row=bane');
  await vi.waitFor(() => expect(field('Name').value).toBe('Bane'));
  page.byText('button', 'Add a sex or stage').click();
  await vi.waitFor(() => expect(page.text()).toContain('A new sex or stage'));
  await write('Sex or stage', 'young');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`POST ${PATH}/rows`)).toHaveLength(1));
  const sent = (server.bodies(`POST ${PATH}/rows`)[0] as { row: Schemas['StudyRow'] }).row;
  expect(sent).toMatchObject({ id: '', label: 'Bane', stage: 'young', parent: 'bane', hazard: 'SERIOUS' });
});

test('keys move a taxon, and only where there is a way', async () => {
  server.on(`POST ${PATH}/rows/bane/move`, { id: 'bane', revision: 8 });
  const page = await open();
  const item = page.all('[role=treeitem]')[2];
  const press = (key: string) =>
    item?.dispatchEvent(new KeyboardEvent('keydown', { key, altKey: true, bubbles: true }));
  press('ArrowDown');
  press('ArrowLeft');
  press('ArrowUp');
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/rows/bane/move`)).toEqual([{ before: 'mild', baseRevision: 4 }]),
  );
});

test('a removal says what goes, and goes when confirmed', async () => {
  server.on(`DELETE ${PATH}/rows/mild?baseRevision=0`, { id: 'mild', revision: 8 });
  const page = await open('?row=mild');
  await vi.waitFor(() => expect(field('Name').value).toBe('Mild'));
  page.byText('.shelf button', 'Remove').click();
  await vi.waitFor(() =>
    expect(document.querySelector('.v-dialog')?.textContent).toContain(
      'Mild and its one score will be removed. Its one sex or stage will be removed, too. Undo brings everything back.',
    ),
  );
  [...document.querySelectorAll<HTMLElement>('.v-dialog button')]
    .find((b) => b.textContent?.includes('Remove'))
    ?.click();
  await vi.waitFor(() => expect(server.asked.map((a) => a.route)).toContain(`DELETE ${PATH}/rows/mild?baseRevision=0`));
});

test('where somebody was faster, the editor decides', async () => {
  const conflict = new Refusal(409, {
    code: 'changed-meanwhile',
    detail: 'Oswin changed taxon bane meanwhile.',
    who: 'Oswin',
    revision: 6,
  });
  const replies: unknown[] = [conflict, { id: 'bane', revision: 9 }];
  server.on(`PUT ${PATH}/rows/bane`, () => replies.shift());
  const page = await open('?row=bane');
  await vi.waitFor(() => expect(field('Name').value).toBe('Bane'));
  await write('Name', 'Bane nova');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(page.text()).toContain('Oswin changed taxon bane meanwhile.'));
  expect(field('Name').value).toBe('Bane nova');
  page.byText('.shelf button', 'Keep mine').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/rows/bane`)).toHaveLength(2));
  expect((server.bodies(`PUT ${PATH}/rows/bane`)[1] as { baseRevision: number }).baseRevision).toBe(6);
});

test('the scope is saved with its cautions, one a line', async () => {
  server.on(`PUT ${PATH}/scope`, { id: '', revision: 8 });
  const page = await open();
  await write('What it leaves out', 'Seedlings');
  await write('Cautions for every reader (one a line)', ' Wear gloves \n\nAsk the owner');
  page.byText('form button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/scope`)).toHaveLength(1));
  expect(server.bodies(`PUT ${PATH}/scope`)[0]).toMatchObject({
    title: 'Meadow plants',
    baseRevision: 2,
    scope: { leavesOut: 'Seedlings', cautions: ['Wear gloves', 'Ask the owner'] },
  });
});

test('outside taxa are edited as a list', async () => {
  server.on(`PUT ${PATH}/outside`, { id: '', revision: 8 });
  const page = await open('', { nearButOutside: [{ name: 'Shorebane', why: 'salt marsh', hazard: 'SERIOUS' }] });
  page.byText('button', 'Edit these').click();
  await nextTick();
  await write('Where, and why not scored', 'dunes');
  page.all('button[type=submit]')[0]?.click();
  await vi.waitFor(() =>
    expect(server.bodies(`PUT ${PATH}/outside`)).toEqual([
      { taxa: [{ name: 'Shorebane', why: 'dunes', hazard: 'SERIOUS' }], baseRevision: 0 },
    ]),
  );
});

test('who may not edit sees everything and can change nothing', async () => {
  const page = await open('?row=bane', { role: 'SCORER' });
  await vi.waitFor(() => expect(field('Name').value).toBe('Bane'));
  expect(field('Name').readOnly).toBe(true);
  expect(page.all('button').map((b) => b.textContent?.trim())).not.toContain('Save');
  expect(page.text()).not.toContain('Add a taxon');
});

test('a taxon is split: scores go where they are told, and the change is shown first', async () => {
  const split = {
    operation: 'SplitTaxon',
    row: 'bane',
    into: ['Bane', 'Bane minor'],
    assigned: {},
    specimens: {},
  };
  server.on(`GET ${PATH}/columns?character=margin`, [
    {
      character: 'margin',
      faces: [{ text: 'entire', kind: 'states', parts: [] }],
      face: [-1, -1, 0],
      from: [-1, -1, -1],
      revision: [0, 0, 0],
    },
  ]);
  server.on(`POST ${PATH}/operations/preview`, { revision: 7, total: 1, changes: [] });
  const page = await open('?row=bane');
  page.byText('.operations button', 'Split …').click();
  const dialog = () => document.querySelector('.v-dialog form');
  await vi.waitFor(() => expect(dialog()?.textContent).toContain('margin: entire'));
  const box = dialog()?.querySelector('textarea') as HTMLTextAreaElement;
  box.value = 'Bane\nBane minor\n';
  box.dispatchEvent(new Event('input', { bubbles: true }));
  await nextTick();
  dialog()?.dispatchEvent(new Event('submit', { cancelable: true }));
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${PATH}/operations/preview`)).toEqual([{ operation: split, baseRevision: 0 }]),
  );
});

test('a list shows the hazard that stands; the editor what is recorded, and what it counts as', async () => {
  const seedling = row('mild-male', { label: 'Mild', parent: 'mild', stage: 'male', hazard: 'NOT_ASSESSED' });
  const page = await open('?row=mild-male', {
    rows: [row('mild', { label: 'Mild', hazard: 'LIFE_THREATENING' }), seedling, row('bane', { label: 'Bane' })],
    standing: [{ ...seedling, hazard: 'LIFE_THREATENING' }],
  });
  expect(page.all('[role=treeitem]').map((i) => i.textContent?.includes('life-threatening'))).toEqual([
    true,
    true,
    false,
  ]);
  await vi.waitFor(() => expect(page.text()).toContain('It counts as “life-threatening”'));
  server.on(`PUT ${PATH}/rows/mild-male`, { id: 'mild-male', revision: 8 });
  await write('Source of the hazard assessment', 'A flora');
  page.byText('.shelf button', 'Save').click();
  await vi.waitFor(() => expect(server.bodies(`PUT ${PATH}/rows/mild-male`)).toHaveLength(1));
  expect(server.bodies(`PUT ${PATH}/rows/mild-male`)[0]).toMatchObject({ row: { hazard: 'NOT_ASSESSED' } });
});

test('several are assessed by one source; nobody is chosen beforehand, and what would change is shown', async () => {
  const preview = `POST ${PATH}/operations/preview`;
  server.on(preview, { revision: 3, total: 2, changes: [] });
  const open2 = rows.map((r) => ({ ...r, hazard: r.id === 'bane' ? r.hazard : ('NOT_ASSESSED' as const) }));
  const page = await open('', { rows: open2 });
  page.byText('.v-btn__content', 'Assess several of 2 taxa').click();
  const boxes = () => [...document.querySelectorAll<HTMLInputElement>('.v-dialog fieldset input')];
  await vi.waitFor(() => expect(boxes()).toHaveLength(2));
  expect(boxes().some((b) => b.checked)).toBe(false);
  const yes = () =>
    [...document.querySelectorAll<HTMLButtonElement>('.v-dialog button')].find((b) =>
      b.textContent?.includes('Show what would change'),
    );
  boxes()[0]?.click();
  await write('Source (a book, a register, a qualified person)', ' Plants of the weir ');
  expect(yes()?.disabled, 'how dangerous is a choice of its own').toBe(true);
  document
    .querySelector<HTMLElement>('.v-dialog .v-select .v-field')
    ?.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
  const item = () =>
    [...document.querySelectorAll<HTMLElement>('.v-select__content .v-list-item')].find((i) =>
      i.textContent?.includes('no hazard known'),
    );
  await vi.waitFor(() => expect(item()).toBeDefined());
  item()?.click();
  await nextTick();
  yes()?.click();
  await vi.waitFor(() => expect(server.bodies(preview)).toHaveLength(1));
  expect(server.bodies(preview)[0]).toMatchObject({
    operation: { operation: 'AssessHazards', rows: ['mild'], hazard: 'NONE_KNOWN', source: 'Plants of the weir' },
  });
});
