// Copies what is chosen on one drawing and pastes it on the same or another: as new elements, or the same ones shown again.
import { refresh } from '../frame/live.js';
import { at, branch, postEdit } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { saved } from '../frame/saving.js';
import { extent, hasUses } from './extent.js';

const KEPT = 'pyrite.copied';

export function copy(drawing) {
  const boxes = drawing.canvas.boxes;
  if (!boxes.length) {
    say('Choose a box to copy.');
    return;
  }
  localStorage.setItem(KEPT, JSON.stringify({ branch: branch(), ids: [...new Set(boxes.map((box) => box.id))] }));
  const copied = boxes.length === 1 ? boxes[0].title : `${boxes.length} boxes`;
  say(`${copied} copied; Ctrl V makes new elements of it, Ctrl Shift V shows the same again`);
}

/** @param isNew whether new elements are made; else the same ones are shown in this view */
export async function paste(drawing, isNew) {
  const kept = JSON.parse(localStorage.getItem(KEPT) ?? 'null');
  if (!kept || kept.branch !== branch()) {
    say(kept ? 'What was copied is of another branch.' : 'Nothing is copied yet: choose boxes and press Ctrl C.');
    return;
  }
  const { canvas } = drawing;
  if (isNew) {
    const box = canvas.scene.boxOf(canvas.current);
    const top = canvas.data.boxes.find((each) => each.parent === '');
    const isSame = box && kept.ids.includes(box.id);
    const outer = isSame ? canvas.scene.boxes.get(box.parent) : box;
    const into = outer
      ? hasUses()
        ? outer.key
        : outer.id
      : drawing.form !== 'GENERAL'
        ? top?.id
        : canvas.host.dataset.into;
    await saved('/drawing/copy', (base) => ({ ids: kept.ids, into, extent: hasUses() ? extent() : 'USE', base }));
    return;
  }
  const shown = new Set(canvas.data.boxes.map((box) => box.id));
  const ids = kept.ids.filter((id) => !shown.has(id));
  if (!ids.length) {
    say('All of it is shown here already.');
    return;
  }
  await showAlso(drawing, ids);
}

/** Shows elements in a view. An element's own drawing leads on to the view that now shows more than the element. */
export async function showAlso(drawing, ids) {
  const { status, body } = await postEdit(`${branch()}/element/${drawing.element}/drawing/show`, (base) => ({
    form: drawing.form,
    ids,
    base,
  }));
  if (status !== 200 || !body.saved) {
    say(body.message);
    return;
  }
  say(`${body.message} · ${body.revision}`, true);
  if (location.pathname.endsWith(`/drawing/${body.made[0]}`)) {
    await refresh();
  } else {
    location.href = at(`drawing/${body.made[0]}`);
  }
}
