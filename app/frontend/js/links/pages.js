// The forms of the pages that ask something of the links: the trace table's columns, rules, rechecks.
import { branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/history.js';
import { ask, common } from '../grid/dialog.js';
import { element } from '../grid/cells.js';

/** Saves what a form asks for: its data with the revision it builds on. */
const save = (address, data) => saved(address, (base) => ({ ...data, base }));

async function saved(address, make) {
  const { status, body } = await postEdit(`${branch()}${address}`, make);
  const done = status === 200 && body.saved;
  say(done ? `${body.message} · ${body.revision}` : body.message, done);
  if (done) {
    await refresh();
  }
  return done;
}

/** The columns as the address has them: derive<;satisfy<|text|without. */
function columnsOf(form) {
  return [...form.querySelectorAll('.path-column')].map((column) => {
    const steps = [...column.querySelectorAll('.path-step')].map((step) => step.querySelector('[data-step]').value + step.querySelector('[data-depth]').value);
    return `${steps.join(';')}|${column.querySelector('[data-show]').value}|${column.querySelector('[data-keep]').value}`;
  });
}

function startTrace() {
  const show = (columns) => {
    const query = new URLSearchParams({ set: document.querySelector('#trace-form [name="set"]').value });
    columns.forEach((column) => query.append('col', column));
    if (!columns.length) {
      query.append('col', '');
    }
    query.set('edit', 'on');
    location.search = query;
  };
  const change = (event, changed) => {
    const form = event.target.closest('#trace-form');
    if (form) {
      const columns = columnsOf(form);
      const place = [...form.querySelectorAll('.path-column')].indexOf(event.target.closest('.path-column'));
      changed(columns, place);
      show(columns);
    }
  };
  document.addEventListener('change', (event) => change(event, () => {}));
  document.addEventListener('click', (event) => {
    const steps = (text) => text.split('|')[0];
    if (event.target.closest('[data-add-column]')) {
      change(event, (columns) => columns.push('derive<||'));
    } else if (event.target.closest('[data-drop-column]')) {
      change(event, (columns, place) => columns.splice(place, 1));
    } else if (event.target.closest('[data-add-step]')) {
      change(event, (columns, place) => { columns[place] = columns[place].replace('|', ';satisfy<|'); });
    } else if (event.target.closest('[data-drop-step]')) {
      change(event, (columns, place) => { columns[place] = columns[place].replace(steps(columns[place]), steps(columns[place]).replace(/;[^;]*$/, '')); });
    }
  });
}

async function askRule(row) {
  const field = (name, label, value, type = 'text') => ({ name, label, input: element('input', { value, type, min: 0, autocomplete: 'off' }) });
  const offering = (name, label, value, list) => {
    const asked = field(name, label, value);
    asked.input.setAttribute('list', list);
    return asked;
  };
  const data = row?.dataset ?? {};
  const answer = await ask(document.getElementById('rule-dialog'), 'Link rule', [
    offering('kind', 'Kind of link', data.kind ?? '', 'known-kinds'), offering('from', 'From: levels or kinds of elements, by commas', data.from ?? '', 'known-ends'),
    offering('to', 'To', data.to ?? '', 'known-ends'),
    field('leastFrom', 'Links expected from each', data.leastFrom ?? '0', 'number'), field('leastTo', 'Links expected at each', data.leastTo ?? '0', 'number'),
    field('watched', 'Properties whose change puts the link in doubt', data.watched ?? 'text, constraint')], 'Save');
  if (answer) {
    save('/rules', { ...answer, leastFrom: Number(answer.leastFrom), leastTo: Number(answer.leastTo), element: data.rule ?? null });
  }
}

async function askKind() {
  const answer = await ask(document.getElementById('rule-dialog'), 'Kind of link', [{ name: 'key', label: 'Key, for rules and the notation' },
    { name: 'forward', label: 'How the source is to the target' }, { name: 'backward', label: 'How the target is to the source' }], 'Add');
  if (answer) {
    save('/rules/kinds', { ...answer });
  }
}

function confirmLinks(links) {
  if (links.length) {
    save('/recheck/confirm', { links, note: document.getElementById('recheck-note').value });
  } else {
    say('Choose the links you have looked at.');
  }
}

/** Keeps what the page shows, with what stands in its address. */
async function saveView(button) {
  const answer = await ask(common(), 'Save as a view', [{ name: 'name', label: 'Name', input: element('input', { required: true, maxLength: 120, value: button.dataset.title }) },
    { name: 'shared', label: 'Listed for', input: element('select', {}, element('option', { value: 'yes', textContent: 'everybody' }), element('option', { value: '', textContent: 'me' })) },
    { name: 'pinned', label: 'On the Overview', input: element('select', {}, element('option', { value: '', textContent: 'no' }), element('option', { value: 'yes', textContent: 'pinned, with its count' })) }], 'Save');
  if (answer?.name.trim()) {
    const query = new URLSearchParams(button.dataset.query ?? location.search);
    query.delete('edit');
    save('/views', { name: answer.name, page: button.dataset.saveView, query: String(query), shared: answer.shared === 'yes', pinned: answer.pinned === 'yes' });
  }
}

async function refer(id) {
  const answer = await ask(common(), 'Refer to an address', [{ name: 'address', label: 'Address: http, https or mailto', input: element('input', { required: true, autocomplete: 'off' }) },
    { name: 'description', label: 'What it is' }, { name: 'incoming', label: 'Which way', input: element('select', {}, element('option', { value: 'yes', textContent: 'this comes from it' }),
      element('option', { value: '', textContent: 'this leads to it' })) }], 'Refer');
  if (answer) {
    save(`/element/${id}/references`, { address: answer.address, description: answer.description, incoming: answer.incoming === 'yes' });
  }
}

function attach(input) {
  const file = input.files[0];
  saved(`/element/${input.dataset.attach}/attachments`, (base) => {
    const form = new FormData();
    form.set('file', file);
    form.set('base', String(base));
    return form;
  });
}

async function nameBaseline(button) {
  const answer = await ask(common(), 'Name a baseline', [{ name: 'name', label: 'Name', input: element('input', { required: true, maxLength: 200, autocomplete: 'off' }) },
    { name: 'number', label: 'Revision', input: element('input', { type: 'number', min: 1, value: button.dataset.number }) }, { name: 'note', label: 'What it is' }], 'Name it');
  if (answer?.name.trim()) {
    save('/baselines', { name: answer.name, number: Number(answer.number), note: answer.note });
  }
}

export function startLinkPages() {
  startTrace();
  document.addEventListener('change', (event) => {
    event.target.closest('form[data-at-once]')?.requestSubmit();
    if (event.target.matches('[data-attach]') && event.target.files.length) {
      attach(event.target);
    }
  });
  document.addEventListener('click', (event) => {
    const row = event.target.closest('tr');
    const keep = event.target.closest('[data-save-view]');
    const pin = event.target.closest('[data-pin]');
    const baseline = event.target.closest('[data-baseline]');
    const referred = event.target.closest('[data-refer]');
    const taken = event.target.closest('[data-baseline-remove]');
    if (keep) {
      saveView(keep);
    } else if (referred) {
      refer(referred.dataset.refer);
    } else if (baseline) {
      nameBaseline(baseline);
    } else if (taken) {
      save(`/baselines/${taken.dataset.baselineRemove}/remove`);
    } else if (pin) {
      save(`/views/${pin.dataset.pin}/pin`, { pinned: pin.dataset.pinned !== 'true' });
    } else if (event.target.closest('[data-rule-edit]')) {
      askRule(row);
    } else if (event.target.closest('[data-rule-new]')) {
      askRule(null);
    } else if (event.target.closest('[data-kind-new]')) {
      askKind();
    } else if (event.target.closest('[data-rule-remove]')) {
      save('/rules/remove', { element: row.dataset.rule });
    } else if (event.target.closest('[data-confirm="one"]')) {
      confirmLinks([event.target.closest('[data-confirm]').dataset.key]);
    } else if (event.target.closest('[data-confirm="chosen"]')) {
      confirmLinks([...document.querySelectorAll('[data-recheck]:checked')].map((box) => box.value));
    }
  });
}
