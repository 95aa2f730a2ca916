import { beforeEach, describe, expect, it } from 'vitest';
import type { Schemas } from '@/api/client';
import { mount } from '@/testing/mount';
import ColumnMapping from './ColumnMapping.vue';

type Mapping = Schemas['SheetMapping'];

const column = (role: Schemas['MappedColumn']['role'], label = '') => ({ role, label, organ: '', unit: '' });
const mapping: Mapping = {
  titleRows: 1,
  headingRows: 2,
  decimalComma: false,
  fillDown: false,
  transposed: false,
  footnotes: false,
  marks: [],
  blanks: ['-'],
  columns: [column('TAXON', 'Species'), column('CHARACTER', 'width'), column('IGNORED', 'Remarks')],
};
const rows = [
  ['Field book', '', ''],
  ['Species', 'Leaf', 'Remarks'],
  ['', 'width', ''],
  ['Aa', '4', 'wet'],
];

describe('the table as it stands', () => {
  let page: Awaited<ReturnType<typeof mount>>;
  const changed = () =>
    page.heard.filter(([event]) => event === 'update:modelValue').map(([, value]) => value as Mapping);
  const set = (element: HTMLElement | undefined, value: string, event: string) => {
    if (!element) throw new Error('not on the page');
    (element as HTMLInputElement).value = value;
    element.dispatchEvent(new Event(event));
  };

  beforeEach(async () => {
    page = await mount(ColumnMapping, { modelValue: mapping, rows, remembered: false }, ['update:modelValue']);
  });

  it('tells titles, headings and data apart, and what is left out', () => {
    expect(page.all('tbody tr').map((r) => r.className)).toEqual(['title', 'heading', 'heading', 'data']);
    expect(page.all('tbody tr')[3]?.querySelectorAll('.out')).toHaveLength(1);
  });

  it('asks name, organ and unit of characters only', () => {
    expect(page.all('thead th').map((th) => th.querySelectorAll('input').length)).toEqual([0, 3, 0]);
  });

  it('changes one column and leaves the others', () => {
    set(page.all('thead select')[2], 'PRESENCE', 'change');
    expect(changed()[0]?.columns.map((c) => c.role)).toEqual(['TAXON', 'CHARACTER', 'PRESENCE']);
    set(page.all('thead input')[2], 'mm', 'change');
    expect(changed()[1]?.columns[1]).toEqual({ role: 'CHARACTER', label: 'width', organ: '', unit: 'mm' });
    expect(changed()[1]?.columns[0]).toEqual(mapping.columns[0]);
  });

  it('says what becomes of a list of specimens', async () => {
    expect(page.text()).not.toContain('each row is a specimen');
    const specimens = { ...mapping, columns: [column('SPECIMEN', 'Voucher'), ...mapping.columns.slice(1)] };
    const list = await mount(ColumnMapping, { modelValue: specimens, rows, remembered: false });
    expect(list.text()).toContain('each row is a specimen');
    expect(list.all('thead select')[0]?.querySelector('option:checked')?.textContent).toBe('code of a specimen');
  });

  it('takes whole numbers of rows that the table has', () => {
    const numbers = page.all('input[type=number]');
    for (const [typed, taken] of [
      ['2', 2],
      ['-3', 0],
      ['99', 4],
      ['', 0],
    ] as const) {
      set(numbers[0], typed, 'input');
      expect(changed().at(-1)?.titleRows).toBe(taken);
    }
  });

  it('takes texts that mean nothing apart at bars, so that they may hold spaces', () => {
    set(
      page.all('.options input:not([type])')[0] ?? page.all('.options input[type=text]')[0],
      '- | . | no data',
      'input',
    );
    expect(changed().at(-1)?.blanks).toEqual(['-', '.', 'no data']);
  });
});

it('says that a table of these headings was read before', async () => {
  const page = await mount(ColumnMapping, { modelValue: mapping, rows, remembered: true });
  expect(page.text()).toContain('You have read a table with these headings before');
});
