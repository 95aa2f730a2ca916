import { nextTick } from 'vue';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { mountInStudy, study } from '@/testing/study';
import PublishPage from './PublishPage.vue';

const server = fakeServer();
const COVER = 'POST /api/v1/studies/meadow/cover';
const EDITIONS = 'POST /api/v1/studies/meadow/editions';
const gate: Schemas['Gate'] = {
  findings: [
    {
      danger: 'bane',
      dangerName: 'Bane',
      kind: 'TOO_FEW',
      blocking: true,
      others: ['mild'],
      otherNames: ['Mild'],
      months: [1, 2],
      features: 1,
      confirmable: 2,
    },
    {
      danger: 'bane',
      dangerName: 'Bane',
      kind: 'HARD',
      blocking: false,
      others: ['calm'],
      otherNames: ['Calm'],
      months: [3],
      features: 2,
      confirmable: 2,
    },
  ],
  missing: ['leavesOut'],
  editions: [{ number: 3, status: 'WITHDRAWN', reason: 'Colour was wrong', publishedAt: '2026-01-02', who: 'Isolde' }],
};

async function open(role: 'OWNER' | 'SCORER' = 'OWNER') {
  server.on('GET /api/v1/studies/meadow', study({ role }));
  server.on('GET /api/v1/studies/meadow/gate', gate);
  server.on(COVER, (asked: unknown) => ({ html: `<h1>Meadow</h1><p>${JSON.stringify(asked)}</p>` }));
  const page = await mountInStudy(PublishPage);
  await vi.waitFor(() => expect(page.text()).toContain('Bane'));
  return page;
}

async function write(field: HTMLElement | undefined, text: string) {
  (field as HTMLInputElement).value = text;
  field?.dispatchEvent(new Event('input'));
  await nextTick();
}

test('the gate names each danger with what it cannot be distinguished from, when, and what else is missing', async () => {
  const page = await open();
  expect(page.text()).toContain('Mild');
  expect(page.text()).toContain('January, February');
  expect(page.text()).toContain('2 cells to confirm');
  expect(page.all('textarea:not([aria-hidden])'), 'what is only hard needs no words').toHaveLength(1);
  expect(page.text()).toContain('What it leaves out');
  expect(page.text()).toContain('Colour was wrong');
});

test('what readers see first stands there with the words that are being typed, and what changed is told when asked for', async () => {
  server.on('GET /api/v1/studies/meadow/editions/changes', {
    changes: {
      revision: 4,
      total: 1,
      changes: [{ kind: 'ROW', how: 'ADDED', id: 'new', character: '', name: 'Newcomer', fields: [] }],
    },
  });
  const page = await open();
  await vi.waitFor(() => expect(page.all('.preview h1')).toHaveLength(1));
  expect(page.all('.preview')[0]?.hasAttribute('inert')).toBe(true);
  await write(page.all('.finding textarea')[0], 'Leave both alone.');
  await vi.waitFor(() => expect(page.all('.preview')[0]?.textContent).toContain('Leave both alone.'), 3000);
  expect(page.text()).not.toContain('Newcomer');
  const details = page.all('.since')[0] as HTMLDetailsElement;
  details.open = true;
  details.dispatchEvent(new Event('toggle'));
  await vi.waitFor(() => expect(page.text()).toContain('Newcomer'));
});

test('what is open stands first, with its number and the way to it', async () => {
  server.on('GET /api/v1/studies/meadow/findings', [{ key: 'a', kind: 'NO_QUESTION', row: '', character: 'margin' }]);
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('open finding in the checks'));
  const lines = page.all('.lines tr').map((l) => l.textContent?.replace(/\s+/g, ' ').trim());
  expect(lines[0]).toBe('1field of the scope is empty, and an edition needs itScope');
  expect(lines.at(-1)).toBe('1open finding in the checksChecks');
});

test('the words and the authors reach the server; while it still makes the key it is asked again', async () => {
  const answers: unknown[] = [
    new Refusal(409, { code: 'key-in-progress', detail: 'Still being made.' }),
    { number: 4 },
  ];
  server.on(EDITIONS, () => answers.shift());
  const page = await open();
  await vi.waitFor(() => expect(page.all('textarea').length).toBeGreaterThan(0));
  await write(page.all('.finding textarea')[0], 'Leave both alone.');
  await write(page.all('form input')[0], 'Isolde ; Oswin');
  page.byText('button', 'Publish the next edition').click();
  await vi.waitFor(() => expect(page.text()).toContain('Edition 4'));
  expect(server.bodies(EDITIONS)).toHaveLength(2);
  expect(server.bodies(EDITIONS)[1]).toEqual({ authors: ['Isolde', 'Oswin'], words: { bane: 'Leave both alone.' } });
});

test('a refusal is said and what was written stays', async () => {
  server.on(EDITIONS, new Refusal(422, { code: 'scope', detail: 'Write both under Scope.' }));
  const page = await open();
  await vi.waitFor(() => expect(page.all('textarea').length).toBeGreaterThan(0));
  await write(page.all('.finding textarea')[0], 'Leave both alone.');
  page.byText('button', 'Publish the next edition').click();
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('Write both under Scope.'));
  expect((page.all('.finding textarea')[0] as HTMLTextAreaElement).value).toBe('Leave both alone.');
});

test('who may not publish is offered nothing to press', async () => {
  const page = await open('SCORER');
  expect(page.all('form')).toHaveLength(0);
});

test('of hundreds of names the first are told, and how many more there are; all on request', async () => {
  const names = Array.from({ length: 200 }, (_, i) => `Mild ${i + 1}`);
  const findings = gate.findings.slice(0, 1).map((f) => ({ ...f, others: names, otherNames: names }));
  server.on('GET /api/v1/studies/meadow', study({ role: 'OWNER' }));
  server.on('GET /api/v1/studies/meadow/gate', { ...gate, findings });
  const page = await mountInStudy(PublishPage);
  await vi.waitFor(() => expect(page.text()).toContain('Mild 12; and 188 more'));
  expect(page.text()).not.toContain('Mild 13;');
  page.byText('button', 'Show all 200 names').click();
  await vi.waitFor(() => expect(page.text()).toContain('Mild 200'));
  expect(page.text()).not.toContain('188 more');
});
