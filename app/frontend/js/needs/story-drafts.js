// What is written in a story and not saved yet: lines for new steps, which can be written on while those before are saved.
import { element } from '../frame/dom.js';
import { StoryLines } from './story-lines.js';

/** A story list keeps its drafts by these. It has act(name, data), show(), load() and the goal that gets the focus. */
export class StoryDrafts extends StoryLines {
  /** What is being written or saved and has no id yet, in the order in which it was begun. */
  drafts = [];

  /** A new line to write in, behind a step that is there or still being saved. */
  begin(anchor, more = {}) {
    const draft = { key: `draft ${Date.now()} ${this.drafts.length}`, anchor, mode: 'step', ...more };
    draft.node = element(
      'div',
      { className: 'story-line step draft', data: { key: draft.key } },
      element('span', { className: 'story-label mono', textContent: '' }),
      element('div', { className: 'story-text' }, this.field('', 'New step', 'What happens next?')),
    );
    this.drafts.push(draft);
    this.goal = draft.key;
    return draft;
  }

  drop(draft) {
    this.drafts = this.drafts.filter((each) => each !== draft);
  }

  draftOf(node) {
    return this.drafts.find((draft) => draft.node === node || draft.conditionNode === node);
  }

  /** Makes what was written a step; the next one can be written while it is saved. */
  async commit(draft, isLast) {
    const text = draft.node.querySelector('textarea').value.trim();
    if (!text) {
      this.drop(draft);
      this.show();
      return;
    }
    if (draft.isSaving) {
      return;
    }
    draft.isSaving = true;
    draft.node.querySelector('textarea').readOnly = true;
    const result = { step: null, draft };
    if (!isLast) {
      this.begin(result);
      this.show();
    }
    while (draft.anchor.draft && !draft.anchor.step) {
      await draft.anchor.saved;
      if (!draft.anchor.step && !draft.anchor.draft.isSaving) {
        break;
      }
    }
    result.saved = this.send(draft, text);
    draft.result = result;
    const made = await result.saved;
    if (made === null) {
      draft.isSaving = false;
      draft.node.querySelector('textarea').readOnly = false;
      return;
    }
    result.step = made;
    this.drop(draft);
    this.load();
  }

  send(draft, text) {
    if (draft.mode === 'alternative') {
      const condition = draft.conditionNode?.querySelector('textarea').value.trim() ?? '';
      return this.act('alternative', { insteadOf: draft.anchor.step, way: null, condition, text, rainy: false });
    }
    if (draft.mode === 'first') {
      return this.act('alternative', { insteadOf: null, way: draft.way, condition: '', text, rainy: false });
    }
    return draft.mode === 'meanwhile'
      ? this.act('meanwhile', { step: draft.anchor.step, text })
      : this.act('add', { behind: draft.anchor.step, text });
  }

  /** A line that is being written becomes an alternative of the step above it, and its condition is asked for. */
  indent(draft) {
    if (draft.mode !== 'step' || !draft.anchor.step) {
      return;
    }
    draft.mode = 'alternative';
    draft.conditionNode = element(
      'div',
      { className: 'story-line way draft', data: { key: `${draft.key} if` } },
      element('span', { className: 'story-label mono', textContent: '' }),
      element('span', { className: 'story-word', textContent: 'If' }),
      this.field('', 'Condition of the new alternative', 'Say when this way is taken'),
    );
    this.goal = `${draft.key} if`;
    this.show();
  }

  outdent(draft) {
    if (draft.mode === 'alternative') {
      draft.mode = 'step';
      draft.conditionNode = null;
      this.goal = draft.key;
      this.show();
    } else if (draft.mode === 'step' && draft.anchor.step) {
      const way = this.wayOf(draft.anchor.step);
      if (way?.leaves) {
        draft.anchor = { step: way.leaves };
        this.goal = draft.key;
        this.show();
      }
    }
  }
}
