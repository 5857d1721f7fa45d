import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { answerWith, openPage } from './page.js';

openPage();
const { Columns } = await import('../js/grid/columns.js');
const { Rows } = await import('../js/grid/rows.js');
const { Asked } = await import('../js/grid/asked.js');
const { inWords } = await import('../js/grid/conditions.js');
const { pastedRows } = await import('../js/grid/paste.js');

beforeEach(() => localStorage.clear());

const ATTRIBUTES = [
  { name: 'status', type: 'choice', choices: ['draft', 'approved'], unit: '' },
  { name: 'mass', type: 'number', choices: [], unit: 't' },
  { name: 'due', type: 'date', choices: [], unit: '' },
];
const keys = (columns) => columns.shown.map(({ key }) => key);

test('columns show the status at first, and what was chosen the next time', () => {
  const columns = new Columns(ATTRIBUTES, null);
  assert.deepEqual(keys(columns), ['tag', 'text', 'attribute:status', 'links', 'verdict', 'margin']);
  columns.show('attribute:mass', true);
  columns.move('attribute:mass', -2);
  columns.resize('attribute:mass', 20);
  const again = new Columns(ATTRIBUTES, null);
  assert.deepEqual(keys(again), ['tag', 'attribute:mass', 'text', 'attribute:status', 'links', 'verdict', 'margin']);
  assert.equal(again.all.find(({ key }) => key === 'attribute:mass').width, 56);
});

test('the columns of a view stand in its address and stay its own', () => {
  const columns = new Columns(ATTRIBUTES, 'text,attribute:mass~120,unknown~80');
  assert.deepEqual(keys(columns), ['text', 'attribute:mass']);
  assert.equal(columns.layout, 'text,attribute%3Amass~120');
  assert.deepEqual(keys(new Columns(ATTRIBUTES, columns.layout)), keys(columns));
  columns.show('verdict', true);
  assert.equal(localStorage.length, 0);
});

test('the table is at least as wide as its columns with their gaps', () => {
  const columns = new Columns(ATTRIBUTES, 'text,attribute:mass~120');
  assert.equal(columns.template, '28px minmax(200px, 1fr) 120px');
  assert.equal(columns.least, 56 + 28 + 210 + 130);
});

test('rows stand below each other by the heights of their types', async () => {
  const requests = [];
  answerWith((address) => {
    const from = Number(new URL(address, location.href).searchParams.get('from'));
    requests.push(from);
    const rows = Array.from({ length: 120 }, (_, i) => ({ id: `e${from + i}` }));
    return { body: { total: 300, requirements: 298, spine: `hn${'r'.repeat(298)}`, from, index: 7, rows } };
  });
  const rows = new Rows();
  assert.equal(await rows.load(0, 'e7'), 7);
  assert.equal(rows.total, 300);
  assert.equal(rows.layout.top(3), 36 + 44 + 58);
  assert.equal(rows.get(119).id, 'e119');
  assert.equal(rows.get(120), undefined);
  let arrived = 0;
  await rows.need(100, 260, () => arrived++);
  assert.deepEqual(requests, [0, 120, 240]);
  assert.equal(arrived, 2);
  assert.equal(rows.indexOf('e250'), 250);
});

test('rows that cannot be had leave those that are there', async () => {
  const rows = new Rows();
  answerWith(() => ({ status: 404, body: { detail: 'there is no attribute weight' } }));
  assert.equal(await rows.load(0), null);
  assert.equal(rows.isLoaded, false);
  assert.equal(document.getElementById('saved').textContent, 'there is no attribute weight');
});

test('conditions are said in words', () => {
  const words = (condition) => inWords(condition, ATTRIBUTES);
  assert.equal(words('status:approved'), 'status is approved');
  assert.equal(words('status!draft'), 'status is not draft');
  assert.equal(words('mass<2 [t]'), 'mass is at most 2 [t]');
  assert.equal(words('due<2026-12-01'), 'due is on or before 2026-12-01');
  assert.equal(words('mass:'), 'mass is missing');
  assert.equal(words('mass!'), 'mass is given');
});

function controls(search) {
  openPage(
    `<div id="grid"><input data-filter><select data-choose="spec"><option value=""></option>
     <option value="s1">one</option></select>
     <select data-choose="show"><option value="all">all</option><option value="failed">failed</option></select>
     <select data-choose="sort"><option value=""></option><option value="id"></option>
     <option value="mass"></option></select>
     <select data-choose="group"><option value=""></option><option value="status"></option></select></div>`,
    `http://pyrite.test/p/merrow/main/requirements${search}`,
  );
  return new Asked(document.getElementById('grid'));
}

test('what is asked comes from the address and goes back into it', () => {
  const asked = controls('?sort=-mass&where=status:draft&where=mass%3E1&q=leaf');
  assert.equal(String(asked.query()), 'q=leaf&where=status%3Adraft&where=mass%3E1&show=all&sort=-mass');
  asked.conditions = ['mass>1'];
  asked.keep();
  assert.deepEqual(new URL(location.href).searchParams.getAll('where'), ['mass>1']);
});

test('ordering by a column goes up, down, and back to the document', () => {
  const asked = controls('');
  const order = () => {
    asked.orderBy('mass');
    return [asked.query().get('sort'), asked.sorted({ sort: 'mass' })];
  };
  assert.deepEqual(order(), ['mass', 'ascending']);
  assert.deepEqual(order(), ['-mass', 'descending']);
  assert.deepEqual(order(), [null, null]);
});

test('rows come from the clipboard with quoted line breaks and doubled quotes', () => {
  assert.deepEqual(pastedRows('R-1\tThe gate shall close.\r\n\r\nR-2\t"two\nlines ""here"""\n'), [
    ['R-1', 'The gate shall close.'],
    ['R-2', 'two\nlines "here"'],
  ]);
  assert.deepEqual(pastedRows(' \n\t\n'), []);
});
