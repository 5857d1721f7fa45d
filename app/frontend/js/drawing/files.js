// A file dropped on a box is attached to what the box stands for.
import { say } from '../frame/notice.js';
import { saved } from '../frame/saving.js';

export function startFiles({ canvas }) {
  const { host } = canvas;
  const hasFile = (event) => [...(event.dataTransfer?.types ?? [])].includes('Files');
  host.addEventListener('dragover', (event) => {
    if (hasFile(event)) {
      event.preventDefault();
      host.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
      canvas.scene.nodeOf(canvas.under(event, '.box'))?.classList.add('into');
    }
  });
  host.addEventListener('drop', (event) => {
    if (!hasFile(event)) {
      return;
    }
    event.preventDefault();
    host.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
    const box = canvas.scene.boxes.get(canvas.under(event, '.box'));
    const [file] = event.dataTransfer.files;
    if (!box) {
      say('Drop a file onto a box, to attach it to what the box stands for.');
      return;
    }
    saved(`/element/${box.id}/attachments`, (base) => {
      const form = new FormData();
      form.set('file', file);
      form.set('base', String(base));
      return form;
    });
  });
}
