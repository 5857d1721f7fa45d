// The grid by pointer: choosing, editing, dragging rows, sizing columns.

export function startPointer(grid) {
  const rowOf = (event) => event.target.closest('.grid-canvas .line');
  grid.body.addEventListener('click', (event) => {
    const line = rowOf(event);
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
  let dragged = null;
  const clear = () =>
    grid.canvas
      .querySelectorAll('.before, .behind, .into')
      .forEach((line) => line.classList.remove('before', 'behind', 'into'));
  const place = (event) => {
    const line = rowOf(event);
    const box = line?.getBoundingClientRect();
    const part = box ? (event.clientY - box.top) / box.height : 0;
    return line ? { line, how: part < 0.3 ? 'before' : part > 0.7 ? 'behind' : 'into' } : null;
  };
  grid.body.addEventListener('dragstart', (event) => {
    const id = rowOf(event)?.dataset.select;
    dragged = grid.chosen.has(id) ? grid.about() : [id];
    event.dataTransfer.effectAllowed = 'move';
    event.dataTransfer.setData('text/plain', id);
  });
  grid.body.addEventListener('dragover', (event) => {
    const goal = place(event);
    clear();
    if (dragged && goal && !dragged.includes(goal.line.dataset.select)) {
      event.preventDefault();
      goal.line.classList.add(goal.how);
    }
  });
  grid.body.addEventListener('dragend', clear);
  grid.body.addEventListener('drop', (event) => {
    const goal = place(event);
    clear();
    if (dragged && goal && !dragged.includes(goal.line.dataset.select)) {
      event.preventDefault();
      grid.arrange(goal.how, goal.line.dataset.select, dragged);
    }
    dragged = null;
  });
}

export function startResizing(grid) {
  let held = null;
  grid.head.addEventListener('pointerdown', (event) => {
    const key = event.target.dataset?.resize;
    if (key) {
      held = { key, from: event.clientX, width: grid.columns.all.find((column) => column.key === key).width };
      event.target.setPointerCapture(event.pointerId);
    }
  });
  grid.head.addEventListener('pointermove', (event) => {
    if (held) {
      grid.columns.resize(held.key, held.width + event.clientX - held.from);
      grid.head.style.gridTemplateColumns = grid.columns.template;
      grid.canvas.querySelectorAll('.line').forEach((line) => {
        line.style.gridTemplateColumns = grid.columns.template;
      });
    }
  });
  grid.head.addEventListener('pointerup', () => {
    held = null;
    grid.describeView();
  });
}
