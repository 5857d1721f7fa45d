// A field for a line that is still on its way: it is there at once, so that nothing typed meanwhile is taken for a command.
import { element } from '../frame/dom.js';

const WIDEST = 620;

export class Ahead {
  /**
   * @param below the cell under which the field stands, or the whole grid where there is none
   * @param kind what is added: a requirement, a heading or a note
   * @param again called when somebody presses Enter after the line was refused
   * @param dropped called when somebody gives the line up
   */
  constructor(below, kind, again, dropped) {
    this.kind = kind;
    this.again = again;
    this.dropped = dropped;
    this.ended = null;
    this.keys = [];
    this.refused = false;
    this.field = element('textarea', { ariaLabel: 'Text of the new line' });
    this.box = element('div', { className: 'ahead' }, this.field);
    const { left, bottom, width } = below.getBoundingClientRect();
    this.box.style.left = `${left}px`;
    this.box.style.top = `${Math.max(0, Math.min(bottom, innerHeight - 120))}px`;
    this.box.style.width = `${Math.min(width, WIDEST)}px`;
    document.body.append(this.box);
    this.box.addEventListener('keydown', (event) => this.pressed(event));
    this.field.focus();
  }

  pressed(event) {
    event.stopPropagation();
    if (this.ended) {
      // What comes after the line's end is done when the line is there.
      event.preventDefault();
      this.keys.push(event.key);
    } else if ((event.key === 'Enter' && !event.shiftKey) || event.key === 'Tab') {
      event.preventDefault();
      if (this.refused) {
        this.refused = false;
        this.box.querySelector('.fault')?.remove();
        this.again();
      } else {
        this.ended = event.key;
        this.field.readOnly = true;
      }
    } else if (event.key === 'Escape') {
      if (this.refused) {
        this.close();
        this.dropped();
      } else {
        this.ended = 'Escape';
        this.field.readOnly = true;
      }
    }
  }

  /** A key pressed before this field was there. */
  type(key) {
    if (this.ended) {
      this.keys.push(key);
    } else if (key === 'Enter' || key === 'Tab' || key === 'Escape') {
      this.ended = key;
    } else if (key === 'Backspace') {
      this.field.value = this.field.value.slice(0, -1);
    } else if ([...key].length === 1) {
      this.field.value += key;
    }
  }

  /**
   * Says why the line cannot be written there; the text stays.
   *
   * @param again what Enter does now
   */
  refuse(message, again = this.again) {
    this.refused = true;
    this.again = again;
    this.ended = null;
    this.keys = [];
    this.field.readOnly = false;
    this.box.querySelector('.fault')?.remove();
    this.box.append(
      element('p', {
        className: 'fault',
        role: 'alert',
        textContent: message,
      }),
    );
    this.field.focus();
  }

  close() {
    this.box.remove();
  }

  /** What was typed, the key that ended it, and those after it; the field is gone. */
  take() {
    this.close();
    return { text: this.field.value, key: this.ended, rest: this.keys };
  }
}
