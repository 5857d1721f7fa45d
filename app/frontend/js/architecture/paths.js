// Function paths: found between two functions along what is exchanged, named, given attributes and limits.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common, openForm } from '../grid/dialog.js';

const json = async (address) => {
  const response = await fetch(at(address), { headers: { 'X-Requested-With': 'fetch' } });
  return response.ok ? response.json() : null;
};

const options = (values) => values.map(({ id, name }) => element('option', { value: id, textContent: name }));

/** The dialog that finds the ways between two functions and names one of them. */
class Finder {
  constructor({ of, in: whole }, functions) {
    this.question = { of, in: whole };
    const select = (label) =>
      element(
        'select',
        { aria: { label } },
        element('option', { value: '', textContent: 'choose a function' }),
        ...functions.map(({ key, name }) => element('option', { value: key, textContent: name })),
      );
    this.from = select('From function');
    this.to = select('To function');
    this.depth = element(
      'select',
      { aria: { label: 'Level of functions' } },
      ...[
        ['9', 'the innermost'],
        ['1', 'those of the whole'],
        ['2', 'two levels'],
      ].map(([value, textContent]) => element('option', { value, textContent })),
    );
    this.name = element('input', { maxLength: 200, autocomplete: 'off', aria: { label: 'Name' } });
    this.text = element('input', { maxLength: 4000, autocomplete: 'off', aria: { label: 'Purpose' } });
    this.found = element('div', {
      className: 'from-step from-steps',
      role: 'radiogroup',
      aria: { label: 'Ways found' },
    });
    [this.from, this.to].forEach((field) => field.addEventListener('change', () => this.search()));
    this.depth.addEventListener('change', () => this.refill());
    const labelled = (words, field) => element('label', {}, words, field);
    openForm(
      'New function path',
      'Add the path',
      [
        element('h2', { textContent: 'New function path' }),
        element(
          'div',
          { className: 'path-question' },
          labelled('Functions', this.depth),
          labelled('From', this.from),
          labelled('To', this.to),
        ),
        this.found,
        element(
          'div',
          { className: 'turn-line one-line' },
          labelled('Name', this.name),
          labelled('Purpose', this.text),
        ),
      ],
      () => this.send(),
    );
  }

  ask(more) {
    return json(`paths/ways.json?${new URLSearchParams({ ...this.question, depth: this.depth.value, ...more })}`);
  }

  async refill() {
    const { functions } = (await this.ask({})) ?? { functions: [] };
    [this.from, this.to].forEach((field) => {
      field.replaceChildren(
        element('option', { value: '', textContent: 'choose a function' }),
        ...functions.map(({ key, name }) => element('option', { value: key, textContent: name })),
      );
    });
    this.found.replaceChildren();
  }

  async search() {
    if (!this.from.value || !this.to.value) {
      return;
    }
    this.ways = (await this.ask({ from: this.from.value, to: this.to.value }))?.ways ?? [];
    this.found.replaceChildren(
      ...(this.ways.length
        ? this.ways.map(({ places }, i) =>
            element(
              'label',
              { className: 'plain-choice' },
              element('input', { type: 'radio', name: 'way', value: String(i), checked: i === 0 }),
              element('span', {
                textContent: places.map(({ function: name, part }) => (part ? `${name} (${part})` : name)).join(' → '),
              }),
            ),
          )
        : [element('p', { className: 'quiet', textContent: 'No path leads from the one to the other.' })]),
    );
  }

  send() {
    const chosen = this.found.querySelector('input:checked');
    if (!chosen) {
      return 'Choose where the path leads from and to, and one of the ways found.';
    }
    return refusal('/paths/make', {
      ...this.question,
      name: this.name.value,
      text: this.text.value,
      places: this.ways[Number(chosen.value)].places,
    });
  }
}

async function make(button) {
  const { of, in: whole } = button.dataset;
  const first = await json(`paths/ways.json?${new URLSearchParams({ of, in: whole })}`);
  if (!first?.functions.length) {
    say('No functions exchange anything yet; a path leads along what they exchange.', false);
    return;
  }
  new Finder({ of, in: whole }, first.functions);
}

const acts = {
  combine: ({ id, name, choices }) => {
    const list = element('datalist', { id: 'path-attributes' });
    list.append(...choices.attributes.map((value) => element('option', { value })));
    const attribute = element('input', { required: true, maxLength: 200, autocomplete: 'off' });
    attribute.value = choices.attributes[0] ?? '';
    attribute.setAttribute('list', 'path-attributes');
    document.getElementById('path-attributes')?.remove();
    document.body.append(list);
    ask(
      common(),
      `What does ${name} combine?`,
      [
        { name: 'attribute', label: 'Attribute of its functions or parts', input: attribute },
        { name: 'combination', label: 'How', input: element('select', {}, ...options(choices.combinations)) },
      ],
      'Combine',
      (answer) => refusal(`/paths/${id}/combine`, answer),
    );
  },
  require: ({ id, name, attributes, choices }) =>
    ask(
      common(),
      `Limit ${name}`,
      [
        {
          name: 'attribute',
          label: 'Attribute of the path',
          input: element('select', {}, ...options(attributes.map((each) => ({ id: each, name: each })))),
        },
        {
          name: 'operator',
          label: 'Comparison',
          input: element(
            'select',
            {},
            ...options(
              ['<=', '<', '>=', '>'].map((sign) => ({ id: sign, name: sign.replace('<=', '≤').replace('>=', '≥') })),
            ),
          ),
        },
        {
          name: 'limit',
          label: 'Limit, with its unit',
          input: element('input', { required: true, maxLength: 500, placeholder: '5 [s]', autocomplete: 'off' }),
        },
        {
          name: 'text',
          label: 'Requirement',
          input: element('input', { required: true, maxLength: 4000, autocomplete: 'off' }),
        },
        { name: 'specification', label: 'In', input: element('select', {}, ...options(choices.specifications)) },
      ],
      'Add the requirement',
      (answer) => refusal(`/paths/${id}/require`, answer),
    ),
  realise: ({ id, name, choices }) =>
    choices.others.length
      ? ask(
          common(),
          `Which path realises ${name}?`,
          [{ name: 'by', label: 'Path through the parts', input: element('select', {}, ...options(choices.others)) }],
          'Link them',
          ({ by }) => refusal(`/paths/${id}/realise`, { by, realised: true }),
        )
      : say('There is no other path yet.', false),
};

export function startPaths() {
  document.addEventListener('click', async ({ target }) => {
    const button = target.closest('[data-path]');
    if (!button) {
      return;
    }
    const act = button.dataset.path;
    if (act === 'make') {
      make(button);
      return;
    }
    const article = button.closest('[data-path-id]');
    const { pathId: id, pathName: name } = article.dataset;
    if (act === 'unrealise') {
      save(`/paths/${id}/realise`, { by: button.dataset.by, realised: false });
      return;
    }
    const choices = await json(`paths/${id}/choices.json`);
    if (choices) {
      const attributes = [...article.querySelectorAll('[data-attribute]')].map(({ dataset }) => dataset.attribute);
      acts[act]({ id, name, attributes, choices });
    }
  });
}
