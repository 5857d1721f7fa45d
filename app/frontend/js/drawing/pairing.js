// Pairs what two ports carry under differing names: for each feature of the one, those of the other that fit can be chosen.
// The pairs become an interface definition, by which the ports are connected.
import { extent } from './extent.js';
import { at } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { element } from '../frame/dom.js';
import { openForm } from '../grid/dialog.js';

/** Offers to pair, where that could help; both ends are ports by their keys. */
export async function openPairing({ canvas }, from, to) {
  const [one, other] = [from, to].map((key) => canvas.scene.ports.get(key)?.port);
  if (!one || !other) {
    return;
  }
  const response = await fetch(at(`drawing/pairing.json?${new URLSearchParams({ from: one.id, to: other.id })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  if (response?.status !== 200) {
    return;
  }
  const { rows } = await response.json();
  if (!rows.some(({ partners }) => partners.some(({ reason }) => !reason))) {
    return;
  }
  const fields = rows.map((row) => {
    const fitting = row.partners.filter(({ reason }) => !reason);
    const same = fitting.find(({ name }) => name === row.name) ?? (fitting.length === 1 ? fitting[0] : null);
    const partner = element(
      'select',
      { aria: { label: `Belongs to ${row.name}` } },
      element('option', { value: '', textContent: 'nothing' }),
      ...row.partners.map(({ name, reason }) =>
        element('option', {
          value: name,
          textContent: name,
          disabled: reason !== '',
          title: reason,
          selected: name === same?.name,
        }),
      ),
    );
    const why = element('small', {
      className: 'quiet',
      textContent: row.partners.find(({ reason }) => reason)?.reason ?? '',
    });
    return { row, partner, why };
  });
  const name = element('input', { className: 'mono', autocomplete: 'off', placeholder: 'after the two ports' });
  const content = [
    element('h2', { textContent: `Pair what ${one.name} and ${other.name} carry` }),
    element('p', {
      className: 'quiet',
      textContent:
        'Their names differ. What belongs together becomes an interface definition with a binding for each pair.',
    }),
    element(
      'table',
      { className: 'rows' },
      element(
        'thead',
        {},
        element(
          'tr',
          {},
          ...[one.declaration, other.declaration, 'What does not fit'].map((textContent) =>
            element('th', { textContent }),
          ),
        ),
      ),
      element(
        'tbody',
        {},
        ...fields.map(({ row, partner, why }) =>
          element(
            'tr',
            {},
            element('td', { className: 'mono', textContent: row.way === 'none' ? row.name : `${row.way} ${row.name}` }),
            element('td', {}, partner),
            element('td', {}, why),
          ),
        ),
      ),
    ),
    element('label', {}, 'Interface definition', name),
  ];
  openForm('Pair features of two ports', 'Connect', content, () => {
    const pairs = Object.fromEntries(
      fields.filter(({ partner }) => partner.value).map(({ row, partner }) => [row.name, partner.value]),
    );
    return refusal('/drawing/pair', { from, to, definition: name.value, pairs, extent: extent() });
  });
  fields[0].partner.focus();
}
