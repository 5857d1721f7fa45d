// How the grid looks: its head and a line of it.
import { element } from '../frame/dom.js';
import { content, wide } from './cells.js';

/** The title of a column; one that rows can be ordered by is a button. */
function title(grid, column) {
  const sign = { ascending: ' ↑', descending: ' ↓' }[grid.asked.sorted(column)] ?? '';
  return [
    column.sort
      ? element('button', {
          type: 'button',
          className: 'sorts',
          textContent: column.title + sign,
          title: `Order by ${column.title}`,
          data: { sort: column.sort },
        })
      : column.title,
  ];
}

export function drawHead(grid) {
  const focused = grid.head.contains(document.activeElement) ? document.activeElement.dataset.sort : null;
  grid.head.style.gridTemplateColumns = grid.columns.template;
  [grid.head, grid.body].forEach((part) => {
    part.style.minWidth = `${grid.columns.least}px`;
  });
  grid.head.style.paddingRight = `${28 + grid.body.offsetWidth - grid.body.clientWidth}px`;
  grid.head.replaceChildren(
    element('span', { role: 'columnheader', aria: { label: 'Chosen' } }),
    ...grid.columns.shown.map((column) => {
      const cell = element(
        'span',
        { role: 'columnheader', className: column.number ? 'number' : '' },
        ...title(grid, column),
      );
      const sorted = grid.asked.sorted(column);
      if (sorted) {
        cell.setAttribute('aria-sort', sorted);
      }
      if (column.key !== 'text') {
        const handle = element('i', { className: 'resize', data: { resize: column.key } });
        cell.append(handle);
      }
      return cell;
    }),
  );
  [...grid.head.querySelectorAll('[data-sort]')].find((button) => button.dataset.sort === focused)?.focus();
}

export function drawRow(grid, row, index) {
  const line = element('div', {
    className: `line ${row.type}`,
    role: 'row',
    aria: { rowindex: index + 1, selected: grid.chosen.has(row.id) },
    data: { index, select: row.id },
  });
  line.id = row.id && `row-${row.id}`;
  line.style.top = `${grid.rows.layout.top(index)}px`;
  line.style.height = `${grid.rows.layout.heightOf(index)}px`;
  line.style.gridTemplateColumns = grid.columns.template;
  line.classList.toggle('chosen', grid.chosen.has(row.id));
  line.classList.toggle('here', index === grid.cursor.row);
  const box = element(
    'span',
    { className: 'choose', role: 'gridcell' },
    element('input', {
      type: 'checkbox',
      tabIndex: -1,
      checked: grid.chosen.has(row.id),
      aria: { label: `Choose ${row.tag || row.name || 'the note'}` },
    }),
  );
  const indent = `${row.depth * 16 + 5}px`;
  if (row.type !== 'requirement') {
    const cell = gridCell(grid, index, 1, wide(row));
    cell.classList.add('wide');
    cell.style.paddingLeft = indent;
    line.append(row.type === 'group' ? element('span', { role: 'gridcell' }) : box, cell);
    return line;
  }
  line.append(
    box,
    ...grid.columns.shown.map((column, i) => {
      const cell = gridCell(grid, index, i, content(row, column));
      cell.classList.toggle('number', Boolean(column.number));
      cell.classList.add(`of-${column.key.split(':')[0]}`);
      cell.id = column.key === 'text' ? `text-${row.id}` : '';
      if (i === 0) {
        cell.style.paddingLeft = indent;
      }
      return cell;
    }),
  );
  return line;
}

function gridCell(grid, index, column, children) {
  const here = index === grid.cursor.row && column === grid.column(index);
  return element(
    'div',
    { className: 'cell', role: 'gridcell', tabIndex: here ? 0 : -1, aria: { colindex: column + 1 }, data: { column } },
    ...children,
  );
}
