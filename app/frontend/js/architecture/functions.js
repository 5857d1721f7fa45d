// Functions and the parts that perform them; what the parts exchange by it, and wiring what no connection carries.
import { element } from '../frame/dom.js';
import { at, branch, post, revision } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common, openForm } from '../grid/dialog.js';

async function give({ function: of, path, part: known }) {
  if (known) {
    save('/functions/give', { function: of, part: known });
    return;
  }
  const whole = document.getElementById('functions').dataset.in;
  const response = await fetch(at(`functions/parts.json?${new URLSearchParams({ in: whole })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  });
  const parts = response.ok ? await response.json() : [];
  const select = element(
    'select',
    {},
    ...parts.map(({ id, label }) => element('option', { value: id, textContent: label })),
  );
  ask(
    common(),
    `Which part performs ${path}?`,
    [{ name: 'part', label: 'Part', input: select }],
    'Assign',
    ({ part }) => refusal('/functions/give', { function: of, part }),
  );
}

const named = ({ dataset: { from, to, sender, receiver, what } }) => ({ from, to, sender, receiver, what });

/** Shows what would be added before it is. */
async function wire(rows) {
  if (!rows.length) {
    say('Choose the exchanges to wire: those that no connection carries have a box.', false);
    return;
  }
  const { of, in: whole } = document.getElementById('exchanges').dataset;
  const asked = { of, in: whole, rows: rows.map(named) };
  const { status, body } = await post(`${branch()}/exchanges/wire`, { ...asked, preview: true, base: revision() });
  if (status !== 200) {
    say(`Not wired: ${body.message}`, false);
    return;
  }
  openForm(
    'Wire it',
    'Wire it',
    [
      element('h2', { textContent: rows.length === 1 ? 'Wire one exchange' : `Wire ${rows.length} exchanges` }),
      element(
        'ul',
        { className: 'plain-list' },
        ...body.summaries.map((words) => element('li', { textContent: words })),
      ),
      element('p', { className: 'quiet small', textContent: 'This is added to the model:' }),
      element(
        'div',
        { className: 'wire-preview' },
        ...body.additions.map(({ place, notation }) =>
          element(
            'div',
            {},
            element('small', { className: 'quiet', textContent: `in ${place}` }),
            element('pre', { className: 'mono', textContent: notation }),
          ),
        ),
      ),
    ],
    () => refusal('/exchanges/wire', { ...asked, preview: false }),
  );
}

export function startFunctions() {
  document.addEventListener('click', (event) => {
    const { target } = event;
    const gives = target.closest('[data-function-give]');
    const takes = target.closest('[data-function-take]');
    const wires = target.closest('[data-wire]');
    if (gives) {
      give(gives.dataset);
    } else if (takes) {
      save('/functions/take', { function: takes.dataset.function, part: takes.dataset.part });
    } else if (wires) {
      const rows =
        wires.dataset.wire === 'one'
          ? [wires.closest('tr')]
          : [...document.querySelectorAll('#exchanges input:checked')].map((box) => box.closest('tr'));
      wire(rows);
    }
  });
  document.addEventListener('change', ({ target }) => target.closest('form[data-asks]')?.requestSubmit());
}
