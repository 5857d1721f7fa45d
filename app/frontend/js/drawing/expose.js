// Exposes features of a part at a port: which, in which direction and under which name; what will be written is shown at once.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { element } from '../frame/dom.js';
import { openForm } from '../grid/dialog.js';

const TYPED_FOR = 150;
const WAYS = { in: 'comes in', out: 'goes out', inout: 'both ways' };
const OF_ACTIONS = { in: 'required', out: 'provided' };

const option = (value, textContent, selected = false) => element('option', { value, textContent, selected });

function row(feature) {
  const chosen = element('input', { type: 'checkbox', aria: { label: `Expose ${feature.name}` } });
  const words = feature.kind === 'action' ? OF_ACTIONS : WAYS;
  const way = element(
    'select',
    { aria: { label: `Direction of ${feature.name}` } },
    ...Object.entries(words).map(([value, text]) => option(value, text, value === feature.way)),
  );
  const name = element('input', {
    className: 'mono',
    value: feature.name,
    aria: { label: `Name of ${feature.name} at the port` },
  });
  return {
    feature,
    chosen,
    way,
    name,
    node: element(
      'tr',
      {},
      element(
        'td',
        {},
        element('label', {}, chosen, element('span', { className: 'mono', textContent: feature.name })),
      ),
      element('td', { className: 'quiet', textContent: `${feature.kind}${feature.type ? ` : ${feature.type}` : ''}` }),
      element('td', {}, way),
      element('td', {}, name),
    ),
  };
}

const labelled = (text, field) => element('label', {}, text, field);

export async function openExpose(box) {
  const response = await fetch(at(`element/${box.id}/exposable.json`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  const choice = response?.ok ? await response.json() : null;
  if (!choice?.features.length) {
    say(
      choice
        ? `${choice.part} has no attributes, items or actions that a port could carry.`
        : 'The server cannot be reached.',
    );
    return;
  }
  const rows = choice.features.map(row);
  const port = element('input', { className: 'mono', autocomplete: 'off', required: true });
  const definition = element(
    'select',
    {},
    option('', 'a new one'),
    ...choice.definitions.map(({ id, name }) => option(id, name)),
  );
  const definitionName = element('input', { className: 'mono', autocomplete: 'off', placeholder: 'after the port' });
  const count = element('input', { type: 'number', min: 1, max: 1000, value: '1' });
  const preview = element('pre', { className: 'preview', aria: { live: 'polite', label: 'What will be written' } });
  const content = [
    element('h2', { textContent: `Expose features of ${choice.part} at a port` }),
    element(
      'div',
      { className: 'exposing-rows' },
      element(
        'table',
        { className: 'rows' },
        element(
          'thead',
          {},
          element(
            'tr',
            {},
            ...['Feature', 'Kind', 'Direction', 'Name at the port'].map((textContent) =>
              element('th', { textContent }),
            ),
          ),
        ),
        element('tbody', {}, ...rows.map(({ node }) => node)),
      ),
    ),
    element(
      'div',
      { className: 'exposing-port' },
      labelled('Port', port),
      labelled('Definition', definition),
      labelled('Its name', definitionName),
      labelled('How many', count),
    ),
    preview,
  ];
  const data = (isPreview, base) => ({
    features: rows
      .filter(({ chosen }) => chosen.checked)
      .map(({ feature, way, name }) => ({ id: feature.id, way: way.value, name: name.value || feature.name })),
    port: port.value,
    definition: definition.value || null,
    definitionName: definitionName.value,
    count: Number(count.value) || 1,
    preview: isPreview,
    base,
  });
  const address = `${branch()}/element/${box.id}/drawing/expose`;
  let timer;
  const show = () => {
    clearTimeout(timer);
    timer = setTimeout(async () => {
      definitionName.disabled = definition.value !== '';
      const { body } = await postEdit(address, (base) => data(true, base));
      preview.textContent = body.notation ?? '';
      fault.textContent = port.value || rows.some(({ chosen }) => chosen.checked) ? (body.message ?? '') : '';
    }, TYPED_FOR);
  };
  const { dialog, form, fault } = openForm('Expose features at a port', 'Expose', content, async () => {
    clearTimeout(timer);
    const { status, body } = await postEdit(address, (base) => data(false, base));
    if (status !== 200) {
      return body.message;
    }
    say(`${body.message} · ${body.revision}`, true);
    await refresh();
    return '';
  });
  form.addEventListener('input', show);
  dialog.addEventListener('close', () => clearTimeout(timer));
  rows[0].chosen.focus();
}
