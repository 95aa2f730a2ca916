import { expect, test, vi } from 'vitest';
import type { Schemas } from '@/api/client';
import { fakeServer, Refusal } from '@/testing/server';
import { usePreferences } from '@/stores/preferences';
import { mountInStudy, row, study } from '@/testing/study';
import { job, key, KEYS } from '../testing';
import KeyPage from './KeyPage.vue';

const server = fakeServer();

/** A reply that comes when the test says so. */
function later() {
  let answer: (reply: unknown) => void = () => undefined;
  const promise = new Promise((resolve) => (answer = resolve));
  return { reply: () => promise, answer: (reply: unknown) => answer(reply) };
}

async function open(path = '/studies/meadow/key', of = study()) {
  server.on('GET /api/v1/studies/meadow', of);
  server.on('GET /api/v1/studies/meadow/named-keys', []);
  server.on('GET /api/v1/studies/meadow/columns?character=margin', []);
  return mountInStudy(KeyPage, path);
}

test('a key that is there at once is shown with its proof and its files', async () => {
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  expect(page.all('.proof.broken')).toHaveLength(0);
  expect(page.text()).not.toContain('Cancel');
  expect(server.bodies(`POST ${KEYS}`)).toEqual([
    {
      objective: 'CAUTIOUS',
      evenWeights: true,
      months: [],
      organs: [],
      methods: [],
      preserved: [],
      taxa: [],
      forbidden: [],
      hazardsFirst: false,
      questions: [],
      stages: [],
      groups: [],
      leads: 2,
      magnification: 0,
    },
  ]);
  usePreferences().plain = true;
  page.byText('button', 'Download').click();
  const files = () => [...document.querySelectorAll('.v-list a')].map((a) => a.getAttribute('href'));
  await vi.waitFor(() => expect(files()).toContain(`${KEYS}/k1/file?format=markdown&plain=true`));
});

test('what becomes of readers stands beside the proof, unless the key is from before it was worked out', async () => {
  const old = key('Margin entire');
  const risk = (right: number) => ({ right, wrong: 0.97 - right, dangerousWrong: 0.0004, stuck: 0.03 });
  const counted = { ...old, figures: { ...old.figures, trained: risk(0.9), novice: risk(0.62) } };
  server.on(`POST ${KEYS}`, (wish: unknown) =>
    job('k1', 'DONE', 1, (wish as Schemas['KeyRequest']).objective === 'FEWEST' ? old : counted),
  );
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('Expected of trained readers: 90 % right, 7.0 % wrong'));
  expect(page.text()).toContain('Expected of novices: 62 % right, 35 % wrong');
  await page.router.replace({ query: { objective: 'FEWEST' } });
  await vi.waitFor(() => expect(page.text()).not.toContain('Expected of'));
});

test('a long key tells how far it is, stops when asked to, and is made again', async () => {
  const ended = later();
  const looks = [job('k1', 'RUNNING', 0.42)];
  server.on(`POST ${KEYS}`, job('k1', 'RUNNING', 0.1));
  server.on(`GET ${KEYS}/k1`, () => looks.shift() ?? ended.reply());
  server.on(`DELETE ${KEYS}/k1`, () => {
    ended.answer(job('k1', 'CANCELLED', 0.5));
    return undefined;
  });
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('42 %'));
  page.byText('button', 'Cancel').click();
  await vi.waitFor(() => expect(page.text()).toContain('Key generation cancelled'));
  expect(page.text()).not.toContain('42 %');
  server.on(`POST ${KEYS}`, job('k2', 'DONE', 1, key('Margin entire')));
  page.byText('button', 'Generate key').click();
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
});

test('the best key so far is shown while a better one is searched for, and is kept when that is stopped', async () => {
  const ended = later();
  const looks = [job('k1', 'RUNNING', 0.42, key('Margin entire'))];
  server.on(`POST ${KEYS}`, job('k1', 'RUNNING', 0.1));
  server.on(`GET ${KEYS}/k1`, () => looks.shift() ?? ended.reply());
  server.on(`DELETE ${KEYS}/k1`, () => {
    ended.answer(job('k1', 'CANCELLED', 0.5, key('Margin toothed')));
    return undefined;
  });
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('The best key so far is shown'));
  expect(page.text()).toContain('Margin entire');
  page.byText('button', 'Stop here').click();
  await vi.waitFor(() => expect(page.text()).toContain('this is the best key that it had found'));
  expect(page.text()).toContain('Margin toothed');
  expect(page.text()).not.toContain('42 %');
});

test('a wish that changes stops the key that is no longer wanted, and keeps the old one in view', async () => {
  const never = later();
  server.on(`POST ${KEYS}`, (wish: unknown) => {
    const forbidden = (wish as Schemas['KeyRequest']).forbidden.length;
    return forbidden === 0
      ? job('k1', 'DONE', 1, key('Margin entire'))
      : forbidden === 1
        ? job('k2', 'RUNNING', 0.2)
        : job('k3', 'DONE', 1, key('Stem round'));
  });
  server.on(`GET ${KEYS}/k2`, never.reply);
  server.on(`DELETE ${KEYS}/k2`, undefined);
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('Margin entire'));
  await page.router.replace('/studies/meadow/key?forbidden=margin');
  await vi.waitFor(() => expect(page.text()).toContain('20 %'));
  expect(page.text()).toContain('Margin entire');
  await page.router.replace('/studies/meadow/key?forbidden=margin,stem');
  await vi.waitFor(() => expect(page.text()).toContain('Stem round'));
  expect(server.asked.map((a) => a.route)).toContain(`DELETE ${KEYS}/k2`);
  never.answer(job('k2', 'DONE', 1, key('Too late')));
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(page.text()).not.toContain('Too late');
});

test('leaving the page stops the key', async () => {
  server.on(`POST ${KEYS}`, job('k1', 'RUNNING', 0.1));
  server.on(`GET ${KEYS}/k1`, later().reply);
  server.on(`DELETE ${KEYS}/k1`, undefined);
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('10 %'));
  page.unmount();
  expect(server.asked.at(-1)?.route).toBe(`DELETE ${KEYS}/k1`);
});

test('what cannot be made is said in a sentence', async () => {
  server.on(
    `POST ${KEYS}`,
    new Refusal(422, { code: 'no-rows', detail: 'A key needs scored taxa, and this study has none.' }),
  );
  const page = await open();
  await vi.waitFor(() => expect(page.all('[role=alert]')[0]?.textContent).toContain('this study has none'));
});

test('a couplet tells why it asks, and its character can be forbidden and allowed again', async () => {
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  const page = await open('/studies/meadow/key?couplet=1');
  await vi.waitFor(() => expect(page.text()).toContain('What of margin?'));
  page.byText('button', 'Do not ask this character').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.forbidden).toBe('margin'));
  expect(page.router.currentRoute.value.query.couplet).toBeUndefined();
  await vi.waitFor(() =>
    expect((server.bodies(`POST ${KEYS}`).at(-1) as Schemas['KeyRequest']).forbidden).toEqual(['margin']),
  );
  (page.all('.v-chip__close')[0] as HTMLElement).click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.forbidden).toBeUndefined());
});

test('a lead is reworded with the couplet in view, and the key is made again with the new words', async () => {
  const study1 = study({ role: 'OWNER', revisions: { 'character/margin': 3 } });
  server.on('GET /api/v1/studies/meadow', study1);
  server.on('GET /api/v1/studies/meadow/named-keys', []);
  server.on('GET /api/v1/studies/meadow/columns?character=margin', []);
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  server.on('POST /api/v1/studies/meadow/characters/clause', (body: unknown) => {
    const lead = (body as Schemas['StudyCharacter']).lead?.technical;
    return lead === 'edge {'
      ? new Refusal(422, { code: 'rules', detail: 'The clause cannot be read.' })
      : { technical: lead ?? 'margin {states}', plain: 'margin', examples: [{ technical: `${lead} seen`, plain: '' }] };
  });
  const page = await mountInStudy(KeyPage, '/studies/meadow/key?couplet=1');
  await vi.waitFor(() => expect(page.text()).toContain('Words of this couplet'));
  page.byText('button', 'margin').click();
  await vi.waitFor(() => expect(page.all('aside form')).toHaveLength(1));
  const clause = page.all('aside form input')[0] as HTMLInputElement;
  const type = (text: string) => {
    clause.value = text;
    clause.dispatchEvent(new Event('input', { bubbles: true }));
  };
  type('edge {');
  await vi.waitFor(() =>
    expect(page.all('[role=alert]').map((a) => a.textContent)).toContain('The clause cannot be read.'),
  );
  type('edge {states}');
  await vi.waitFor(() => expect(page.text()).toContain('edge {states} seen'));
  server.on('PUT /api/v1/studies/meadow/characters/margin', { id: 'margin', revision: 8 });
  server.on('GET /api/v1/studies/meadow', { ...study1, revision: 8 });
  server.on(`POST ${KEYS}`, job('k2', 'DONE', 1, key('Edge entire')));
  page.byText('button', 'Save').click();
  await vi.waitFor(() => expect(page.text()).toContain('Edge entire'));
  const [sent] = server.bodies('PUT /api/v1/studies/meadow/characters/margin') as Schemas['CharacterRequest'][];
  expect(sent?.character.lead).toEqual({ technical: 'edge {states}' });
  expect(sent?.baseRevision).toBe(3);
});

test('a key is made for the months, parts and equipment that are at hand, which the address keeps', async () => {
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  const page = await open('/studies/meadow/key?months=6');
  await vi.waitFor(() => expect(page.text()).toContain('Made for: June'));
  page.byText('button', 'In winter').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.months).toBe('1|2|12'));
  page.byText('button', 'Without a lens').click();
  await vi.waitFor(() => expect(page.text()).toContain('January, February, December; eye'));
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${KEYS}`).at(-1)).toMatchObject({ months: [1, 2, 12], methods: ['eye'] }),
  );
});

test('what a key is made for says who reads, how many leads, and at what group it does not stop though it was wished', async () => {
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, key('Margin entire')));
  const rows = [
    row('ga', { rank: 'genus' }),
    row('ga-a', { parent: 'ga', hazard: 'SERIOUS' }),
    row('ga-b', { parent: 'ga' }),
  ];
  const page = await open('/studies/meadow/key?leads=3&readers=NOVICE&stages=female&times=40&stop=ga', study({ rows }));
  await vi.waitFor(() =>
    expect(page.text()).toContain('Made for: up to ×40; female; for novices; up to 3 leads; stops at one group'),
  );
  expect(page.text()).toContain('The key does not stop at genus Ga (2): some of the taxa are dangerous');
  await vi.waitFor(() =>
    expect(server.bodies(`POST ${KEYS}`).at(-1)).toMatchObject({
      ...{ leads: 3, readers: 'NOVICE', stages: ['female'], magnification: 40, groups: ['ga'] },
    }),
  );
});

test('keys for other purposes stand beside this one, and one of them is a press away', async () => {
  const risk = { right: 0.9, wrong: 0.07, dangerousWrong: 0.012, stuck: 0.03 };
  const beside = (objective: string, couplets: number) => ({
    ...{ objective, couplets, expectedSteps: 2.5, longestPath: 4, trained: risk, novice: risk },
  });
  server.on(`POST ${KEYS}`, {
    ...job('k1', 'DONE', 1, key('Margin entire')),
    compared: [beside('CAUTIOUS', 7), beside('FEWEST', 5)],
  });
  const page = await open();
  await vi.waitFor(() => expect(page.all('.comparison tbody tr')).toHaveLength(2));
  expect(page.all('.comparison tbody tr').map((r) => r.textContent)).toEqual([
    expect.stringContaining('caution72.504'),
    expect.stringContaining('fewest steps52.504'),
  ]);
  page.byText('.comparison button', 'fewest steps').click();
  await vi.waitFor(() => expect(server.bodies(`POST ${KEYS}`).at(-1)).toMatchObject({ objective: 'FEWEST' }));
});

test('a question that is awkward says why, and what that counts', async () => {
  const awkward = key('Margin entire');
  awkward.couplets.forEach((couplet) => (couplet.prices = [{ kind: 'ASKED_AGAIN', couplets: 0.3 }]));
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, awkward));
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('a character that was asked before on the way here'));
  expect(page.text()).toContain('costs as much as 0.3 couplets');
});

test('a key for some taxa says what it leaves out, and what of that is dangerous', async () => {
  const some = key('Margin entire');
  const name = { stage: '', plain: '', rank: '', folded: [] };
  some.leftOut = [
    { ...name, row: 'bane', label: 'Bane', hazard: 'SERIOUS', hazardText: 'serious hazard' },
    { ...name, row: 'other', label: 'Other', hazard: 'NONE_KNOWN', hazardText: '' },
  ];
  server.on(`POST ${KEYS}`, job('k1', 'DONE', 1, some));
  const page = await open('/studies/meadow/key?taxa=mild,odd');
  await vi.waitFor(() =>
    expect(page.text().replace(/\s+/g, ' ')).toMatch(/This key does not lead to: Bane.*serious hazard.*; Other\s?\./),
  );
  expect(page.text()).toContain('Made for: 2 taxa or groups');
  expect(server.bodies(`POST ${KEYS}`).at(-1)).toMatchObject({ taxa: ['mild', 'odd'] });
});

test('another question is asked at a couplet, and the address keeps it until it is set free', async () => {
  const asks = (character: string) => {
    const made = key('Margin entire');
    made.couplets.forEach((c) => {
      c.character = character;
      c.alternatives = [
        { character: 'width', label: 'Leaf width', gain: 0.9, duplicated: 0, misread: 0.04, prices: [] },
      ];
    });
    return made;
  };
  server.on('GET /api/v1/studies/meadow/columns?character=width', []);
  server.on(`POST ${KEYS}`, (wish: unknown) =>
    job('k1', 'DONE', 1, asks((wish as Schemas['KeyRequest']).questions.length ? 'width' : 'margin')),
  );
  const page = await open();
  await vi.waitFor(() => expect(page.text()).toContain('0.90 bits, 0 in both leads, 4.0 % misread'));
  page.byText('button', 'Ask this here').click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.ask).toBe('width'));
  await vi.waitFor(() => expect(page.text()).toContain('couplet 1 asks width'));
  expect(server.bodies(`POST ${KEYS}`).at(-1)).toMatchObject({ questions: [{ character: 'width', rows: [] }] });
  (page.all('.v-chip__close')[0] as HTMLElement).click();
  await vi.waitFor(() => expect(page.router.currentRoute.value.query.ask).toBeUndefined());
});
