// Turning steps: each becomes an event that the system receives, a function that it performs or a message that it sends. The
// choice is proposed; nothing is turned before somebody agrees.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { openForm } from '../grid/dialog.js';

const KINDS = [
  ['RECEIVE', 'something it receives'],
  ['FUNCTION', 'something it does'],
  ['SEND', 'something it sends'],
];

/** @param steps the ids of the steps; none for all that are not turned yet */
export async function askTurning(story, steps) {
  const response = await fetch(
    at(`element/${story.useCase}/story/turning.json?${new URLSearchParams({ steps: steps.join(',') })}`),
    { headers: { 'X-Requested-With': 'fetch' } },
  );
  if (!response.ok) {
    return;
  }
  const { steps: offers, actors, functions, items } = await response.json();
  const names = (id, values) => element('datalist', { id }, ...values.map((value) => element('option', { value })));
  const rows = offers.map((offer) => new Row(offer, actors));
  openForm(
    'Turn steps',
    'Turn',
    [
      element('h2', { textContent: 'What are the steps to the system?' }),
      names('function-names', functions),
      names('item-names', items),
      element('div', { className: 'from-steps' }, ...rows.map(({ node }) => node)),
    ],
    async () => {
      const choices = rows.map((row) => row.choice).filter(Boolean);
      return choices.length
        ? refusal(`/element/${story.useCase}/story/turn`, { choices })
        : 'Choose at least one step.';
    },
  );
}

class Row {
  constructor({ step, label, text, kind, name, actor, alike }, actors) {
    this.step = step;
    const labelled = (words, input) => {
      input.setAttribute('aria-label', `${words} of step ${label}`);
      return input;
    };
    this.box = element('input', { type: 'checkbox', checked: true, aria: { label: `Turn step ${label}` } });
    this.kind = labelled(
      'Kind',
      element('select', {}, ...KINDS.map(([value, textContent]) => element('option', { value, textContent }))),
    );
    this.kind.value = kind;
    this.name = labelled('Name', element('input', { value: name, maxLength: 200, autocomplete: 'off' }));
    this.actor = labelled(
      'Actor',
      element(
        'select',
        {},
        element('option', { value: '', textContent: 'nobody named' }),
        ...actors.map((each) => element('option', { value: each.id, textContent: each.name })),
      ),
    );
    this.actor.value = actor ?? '';
    const alikes = alike.map((other) => {
      const button = element('button', {
        type: 'button',
        className: 'chip',
        textContent: other,
        title: 'Use this function',
      });
      button.addEventListener('click', () => {
        this.kind.value = 'FUNCTION';
        this.name.value = other;
        this.follow();
      });
      return button;
    });
    this.alikes = element(
      'div',
      { className: 'alikes' },
      ...(alikes.length ? [element('small', { className: 'quiet', textContent: 'There is' }), ...alikes] : []),
    );
    this.node = element(
      'fieldset',
      { className: 'from-step' },
      element(
        'legend',
        {},
        this.box,
        element('span', { className: 'mono', textContent: label }),
        element('span', { textContent: text }),
      ),
      element('div', { className: 'turn-line' }, this.kind, this.name, this.actor),
      this.alikes,
    );
    this.kind.addEventListener('change', () => this.follow());
    this.follow();
  }

  /** Only what comes from or goes to somebody names them. */
  follow() {
    const isFunction = this.kind.value === 'FUNCTION';
    this.actor.hidden = isFunction;
    this.name.setAttribute('list', isFunction ? 'function-names' : 'item-names');
  }

  get choice() {
    return this.box.checked
      ? { step: this.step, kind: this.kind.value, name: this.name.value.trim(), actor: this.actor.value || null }
      : null;
  }
}
