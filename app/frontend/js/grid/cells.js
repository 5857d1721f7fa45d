// What stands in the cells of the grid.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { verdictMark } from '../frame/marks.js';

const link = (row, text, className) =>
  element('a', { href: at(`element/${row.id}`), className, textContent: text, tabIndex: -1, draggable: false });

function text(row) {
  const body = element('span', {
    className: 'text',
    textContent: row.shown || row.text || (row.type === 'requirement' ? 'Write what is required…' : ''),
  });
  if (!row.text) {
    body.classList.add('quiet');
  }
  return row.name ? [element('span', { className: 'req-name', textContent: row.name }), body] : [body];
}

const MOST_KINDS = 4;

/** Counts by kind, up and down, as many as fit; the card with all other ends comes when it is pointed at. */
function links(row) {
  const parts = row.links.map((count) =>
    element(
      'span',
      { className: 'link-count', title: `${count.words} ${count.count}` },
      `${count.up ? '↑' : '↓'}${count.count} `,
      element('small', { textContent: count.words }),
    ),
  );
  if (row.recheck) {
    parts.unshift(
      element(
        'span',
        { className: 'doubt', title: 'needs recheck' },
        '≠ ',
        element('small', { textContent: `${row.recheck} to recheck` }),
      ),
    );
  }
  if (parts.length > MOST_KINDS) {
    const rest = parts.splice(MOST_KINDS - 1);
    parts.push(
      element(
        'span',
        { className: 'link-count', title: rest.map((part) => part.title).join(', ') },
        element('small', { textContent: `and ${rest.length} more` }),
      ),
    );
  }
  return parts.length
    ? [
        element(
          'span',
          { className: parts.length === MOST_KINDS ? 'link-counts full' : 'link-counts', data: { linksOf: row.id } },
          ...parts,
        ),
      ]
    : [];
}

const verdict = (row) => (row.verdicts.length ? [verdictMark(row.verdicts[0])] : []);

/** The contents of a cell. */
export function content(row, column) {
  switch (column.key) {
    case 'tag':
      return [link(row, row.tag || '·', 'tag')];
    case 'name':
      return [row.name];
    case 'text':
      return text(row);
    case 'links':
      return links(row);
    case 'verdict':
      return verdict(row);
    case 'margin':
      return [row.verdicts[0]?.margin ?? ''];
    default:
      return [row.attributes[column.attribute.name] ?? ''];
  }
}

/** A heading, a note or a group goes over the whole width. */
export function wide(row) {
  const number = row.number ? [element('span', { className: 'section-number', textContent: row.number })] : [];
  return row.type === 'note'
    ? [element('span', { className: 'text', textContent: row.text || 'Write a note…' })]
    : [...number, element('span', { textContent: row.name })];
}
