import assert from 'node:assert/strict';
import { test } from 'node:test';
import { openPage } from './page.js';

const CONTROLS = `
  <div id="grid">
    <input data-filter />
    <select data-choose="spec"><option value="">all</option><option value="s1">one</option></select>
    <select data-choose="show"><option value="all">all</option><option value="failing">failing</option></select>
    <select data-choose="sort"><option value=""></option><option value="id"></option><option value="name"></option></select>
    <select data-choose="group"><option value=""></option><option value="status"></option></select>
  </div>`;

function asked(search) {
  openPage(CONTROLS, `http://pyrite.test/p/merrow/main/requirements${search}`);
  return import('../js/grid/asked.js').then(({ Asked }) => new Asked(document.getElementById('grid')));
}

test('what an address asks for stands in the controls, and is asked for again', async () => {
  const view = await asked('?q=gate&sort=-name&group=status&where=mass%3C2&where=owner%3AInes');
  assert.equal(view.words.value, 'gate');
  assert.equal(view.control('sort').value, 'name');
  assert.equal(view.descending, true);
  assert.deepEqual(view.conditions, ['mass<2', 'owner:Ines']);
  assert.equal(
    view.query().toString(),
    new URLSearchParams('q=gate&where=mass<2&where=owner:Ines&show=all&sort=-name&group=status').toString(),
  );
});

test('a column is ordered up, then down, then as in the document', async () => {
  const view = await asked('');
  const column = { sort: 'id' };
  const seen = [];
  for (let i = 0; i < 4; i++) {
    seen.push(view.sorted(column));
    view.orderBy('id');
  }
  assert.deepEqual(seen, [null, 'ascending', 'descending', null]);
  view.orderBy('name');
  assert.equal(view.control('sort').value, 'name');
  assert.equal(view.descending, false);
});

test('the address keeps what is asked for, and what else it says', async () => {
  const view = await asked('?q=old&columns=wide');
  view.words.value = 'new';
  view.conditions = ['mass!'];
  view.keep();
  const kept = new URLSearchParams(location.search);
  assert.deepEqual([kept.get('q'), kept.getAll('where'), kept.get('columns')], ['new', ['mass!'], 'wide']);
});

test('where nothing is shown, a filter says so and an empty project says what to do', async () => {
  const view = await asked('');
  assert.match(view.nothing(true).textContent, /nothing here yet\. Press N for a requirement/);
  assert.doesNotMatch(view.nothing(false).textContent, /Add one/);
  view.words.value = 'nowhere';
  assert.match(view.nothing(true).textContent, /Nothing meets the filter\. Show all/);
});
