// Consolidation: what several use cases found is made one definition of the system, taken over as it is, or kept apart.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { refusal, save } from '../frame/saving.js';
import { ask, common, openForm } from '../grid/dialog.js';

const place = () => document.getElementById('consolidation').dataset;
const featuresOf = (rows) => rows.map(({ dataset: { feature, name } }) => ({ id: feature, name }));

async function proposal(features) {
  const response = await fetch(at(`consolidation/one.json?${new URLSearchParams({ features: features.join(',') })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  });
  if (response.ok) {
    return response.json();
  }
  say('These cannot be one: choose features of one kind.', false);
  return null;
}

/** One parameter of the one definition, with what it is made of side by side. */
class United {
  constructor({ name, optional, sources }, features) {
    this.sources = Object.values(sources).map(({ id }) => id);
    this.name = element('input', {
      value: name,
      maxLength: 200,
      autocomplete: 'off',
      aria: { label: `Name of ${name}` },
    });
    this.optional = element('input', {
      type: 'checkbox',
      checked: optional,
      aria: { label: `${name} may be left out` },
    });
    this.node = element(
      'tr',
      {},
      element('td', {}, this.name),
      ...features.map(({ id }) =>
        element('td', { className: 'mono small', textContent: sources[id] ? sources[id].words : '–' }),
      ),
      element('td', {}, this.optional),
    );
  }

  get wish() {
    return { name: this.name.value.trim(), optional: this.optional.checked, sources: this.sources };
  }
}

/** The dialog that makes features one: which definition stays, its name, and its parameters united. */
class Unifying {
  constructor(features, first) {
    this.features = features.map(({ id }) => id);
    this.lead = element('select', { aria: { label: 'Definition that stays' } });
    this.name = element('input', { required: true, maxLength: 200, autocomplete: 'off' });
    this.table = element('div', { className: 'united' });
    this.lead.replaceChildren(
      ...[...first.features, ...first.existing].map(({ id, name }) =>
        element('option', { value: id, textContent: this.features.includes(id) ? name : `${name} (of the system)` }),
      ),
    );
    this.lead.addEventListener('change', () => this.follow());
    this.names = new Map([...first.features, ...first.existing].map(({ id, name }) => [id, name]));
    this.show(first);
    this.name.value = this.names.get(this.lead.value);
    openForm(
      'Make one',
      'Make one',
      [
        element('h2', { textContent: `One ${first.kind} of ${features.length}` }),
        element(
          'div',
          { className: 'turn-line one-line' },
          element('label', {}, 'Definition that stays', this.lead),
          element('label', {}, 'Name', this.name),
        ),
        this.table,
        element('p', {
          className: 'quiet small',
          textContent: 'The other names are remembered, and links go with them.',
        }),
      ],
      () => this.send(),
    );
  }

  get ordered() {
    return [this.lead.value, ...this.features.filter((id) => id !== this.lead.value)];
  }

  async follow() {
    const next = await proposal(this.ordered);
    if (next) {
      this.name.value = this.names.get(this.lead.value);
      this.show(next);
    }
  }

  show({ features, parameters }) {
    this.rows = parameters.map((parameter) => new United(parameter, features));
    this.table.replaceChildren(
      ...(this.rows.length
        ? [
            element(
              'table',
              { className: 'rows' },
              element(
                'thead',
                {},
                element(
                  'tr',
                  {},
                  ...['Parameter', ...features.map(({ name }) => name), 'Optional'].map((textContent) =>
                    element('th', { textContent }),
                  ),
                ),
              ),
              element('tbody', {}, ...this.rows.map(({ node }) => node)),
            ),
          ]
        : []),
    );
  }

  send() {
    return refusal('/consolidation/unify', {
      features: this.ordered,
      name: this.name.value,
      parameters: this.rows.map(({ wish }) => wish),
      home: place().home ?? null,
    });
  }
}

async function unify(rows) {
  if (rows.length < 2) {
    say('Choose at least two features of one kind: each has a box.', false);
    return;
  }
  const features = featuresOf(rows);
  const first = await proposal(features.map(({ id }) => id));
  if (first) {
    new Unifying(features, first);
  }
}

/** Different things: those of one name get names that tell them apart. */
function keepApart(body) {
  const features = featuresOf([...body.querySelectorAll('[data-feature]')]);
  const isNames = body.dataset.names === 'true';
  const fields = isNames
    ? features.map(({ id, name }, i) => {
        const useCase = body.querySelector(`[data-feature="${id}"] .origin a`)?.textContent ?? '';
        return {
          name: id,
          label: `${name} of ${useCase}`,
          input: element('input', {
            value: i === 0 ? name : `${name}In${useCase}`,
            required: true,
            maxLength: 200,
            autocomplete: 'off',
          }),
        };
      })
    : [];
  ask(
    common(),
    isNames ? 'Give different things different names' : 'They are different things',
    [...fields, { name: 'reason', label: 'Why they are different', input: element('input', { maxLength: 2000 }) }],
    isNames ? 'Rename them' : 'Keep them apart',
    ({ reason, ...names }) =>
      refusal('/consolidation/apart', { features: features.map(({ id }) => id), names, reason }),
  );
}

export function startConsolidation() {
  document.addEventListener('click', ({ target }) => {
    const adopts = target.closest('[data-adopt]');
    const makesOne = target.closest('[data-one]');
    const parts = target.closest('[data-apart]');
    if (adopts) {
      const { home, whole } = place();
      save('/consolidation/adopt', {
        features: adopts.dataset.features.split(','),
        home: home ?? null,
        whole: whole ?? null,
      });
    } else if (makesOne) {
      unify(
        makesOne.dataset.one === 'group'
          ? [...makesOne.closest('tbody').querySelectorAll('[data-feature]')]
          : [...document.querySelectorAll('.consolidation input:checked')].map((box) => box.closest('tr')),
      );
    } else if (parts) {
      keepApart(parts.closest('tbody'));
    }
  });
}
