// How the lines of a story look: a step with its text and what it is linked with, a condition, how a way goes on.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';

/** A story list draws its lines by these. It has the steps, whether they may be edited, and goOn(way, value). */
export class StoryLines {
  draw(row) {
    return { step: () => this.drawStep(row), way: () => this.drawWay(row), end: () => this.drawEnd(row) }[row.type]();
  }

  line(row, kind, ...content) {
    return element(
      'div',
      { className: `story-line ${kind}`, data: { key: row.key, depth: row.depth } },
      element('span', { className: 'story-label mono', textContent: row.label }),
      ...content,
    );
  }

  field(text, label, placeholder, isFixed) {
    return element('textarea', {
      value: text,
      rows: 1,
      placeholder,
      maxLength: 4000,
      readOnly: isFixed || !this.editable,
      data: { saved: text },
      aria: { label },
    });
  }

  drawStep(row) {
    const { step } = row;
    const chips = element(
      'span',
      { className: 'story-chips' },
      ...(step.became ? [element('span', { className: 'became', textContent: step.became })] : []),
      ...(step.who ? [element('span', { className: 'quiet small', textContent: step.who })] : []),
      ...step.requirements.map((requirement) => this.chip(step, requirement)),
      ...(step.requirements.length
        ? []
        : [element('span', { className: 'none small', textContent: 'no requirement' })]),
    );
    const more = element('button', {
      type: 'button',
      className: 'icon-act row-more',
      textContent: '⋯',
      title: 'What can be done with this step',
      aria: { label: `What can be done with step ${step.label}`, haspopup: 'menu' },
    });
    const node = this.line(
      row,
      'step',
      element('div', { className: 'story-text' }, this.field(step.text, `Step ${step.label}`, '', !step.own), chips),
      ...(this.editable ? [more] : []),
    );
    node.dataset.select = step.id;
    node.dataset.step = step.id;
    return node;
  }

  chip(step, { id, label, doubted }) {
    return element('a', {
      className: `tag${doubted ? ' doubted' : ''}`,
      href: at(`element/${id}`),
      textContent: doubted ? `≠ ${label}` : label,
      title: doubted ? `${label}: the link needs recheck` : '',
    });
  }

  drawWay(row) {
    const { way } = row;
    const isRainy = way.kind === 'rainy';
    const word = way.kind === 'interruption' ? 'Whenever' : 'If';
    const content = [
      element('span', { className: 'story-word', textContent: word }),
      this.field(way.condition, `Condition of ${way.label}`, 'Say when this way is taken'),
    ];
    if (way.kind !== 'interruption' && this.editable) {
      const box = element('input', { type: 'checkbox', checked: isRainy, data: { rainy: way.label } });
      content.push(element('label', { className: 'rainy small' }, box, 'rainy day'));
    } else if (isRainy) {
      content.push(element('span', { className: 'rainy small', textContent: 'rainy day' }));
    }
    return this.line(row, `way ${way.kind}`, ...content);
  }

  drawEnd(row) {
    const { way } = row;
    const words = { open: 'not told yet', ends: 'the story ends', goes: `goes on with step ${way.end.label}` };
    if (!this.editable || !way.steps.length) {
      return this.line(row, 'end', element('span', { className: 'quiet', textContent: words[way.end.how] }));
    }
    const choice = element(
      'select',
      {
        className: way.end.how === 'open' ? 'is-open' : '',
        aria: { label: `How ${way.label || 'the story'} goes on` },
      },
      element('option', { value: 'now', textContent: words[way.end.how] }),
    );
    // A long story would have as many choices at each end as it has steps.
    const fill = () => this.fillEnds(choice, way);
    choice.addEventListener('focus', fill, { once: true });
    choice.addEventListener('change', () => this.goOn(way, choice.value));
    return this.line(row, 'end', choice);
  }

  fillEnds(choice, way) {
    const option = (value, textContent) => element('option', { value, textContent });
    choice.append(
      ...(way.end.how === 'ends' ? [] : [option('ends', 'the story ends')]),
      ...(way.end.how === 'open' ? [] : [option('open', 'not told yet')]),
      ...this.steps
        .filter(({ id }) => id !== way.end.step)
        .map(({ id, label, text }) => option(id, `goes on with step ${label}: ${text.slice(0, 60)}`)),
    );
  }
}
