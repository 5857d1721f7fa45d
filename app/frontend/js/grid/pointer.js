// The grid by pointer: choosing, editing, dragging rows, sizing columns.
import { goalMark, onDrag, placeInRow } from '../frame/drag.js';

const rowOf = (target) => target?.closest('.grid-canvas .line') ?? null;

export function startPointer(grid) {
  grid.body.addEventListener('click', (event) => {
    const line = rowOf(event.target);
    if (!line || event.target.closest('a, .editor')) {
      return;
    }
    const index = Number(line.dataset.index);
    if (event.target.closest('.choose')) {
      const id = grid.rows.get(index).id;
      grid.choose(event.shiftKey ? grid.anchor : index, index, event.shiftKey || !grid.chosen.has(id));
      grid.anchor = index;
      return;
    }
    const column = Number(event.target.closest('[data-column]')?.dataset.column ?? 1);
    const again =
      index === grid.cursor.row && column === grid.column(index) && document.activeElement?.closest('.grid-body');
    grid.goTo(index, column);
    if (again) {
      grid.edit();
    }
  });
  if (grid.editable) {
    startDraggingRows(grid);
  }
}

/** A chosen row takes all chosen ones along. */
function startDraggingRows(grid) {
  const mark = goalMark();
  onDrag(grid.body, {
    begin: (event) => {
      const line = event.target.closest('.editor, .choose') ? null : rowOf(event.target);
      const id = line?.dataset.select;
      return id ? (grid.chosen.has(id) ? grid.about() : [id]) : null;
    },
    goal: (target, event, ids) => {
      const line = rowOf(target);
      const id = line?.dataset.select;
      return id && !ids.includes(id) ? { line, id, how: placeInRow(line, event) } : null;
    },
    show: (goal) => mark(goal?.line, goal?.how),
    drop: (ids, { id, how }) => grid.arrange(how, id, ids),
    scroller: () => grid.body,
  });
}

export function startResizing(grid) {
  onDrag(grid.head, {
    begin: (event) => {
      const key = event.target.dataset?.resize;
      return key ? { key, width: grid.columns.all.find((column) => column.key === key).width } : null;
    },
    move: ({ dx }, _, held) => {
      held.width += dx;
      grid.columns.resize(held.key, held.width);
      grid.head.style.gridTemplateColumns = grid.columns.template;
      grid.canvas.querySelectorAll('.line').forEach((line) => {
        line.style.gridTemplateColumns = grid.columns.template;
      });
    },
    end: () => grid.describeView(),
  });
}
