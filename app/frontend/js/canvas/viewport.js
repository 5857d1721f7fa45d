// The part of a drawing that is in sight. The sheet is moved and scaled as a whole by a CSS transform, so that panning and
// zooming paint nothing anew; it is painted sharp again when it rests.

/** Around what is fitted, px. */
const MARGIN = 24;
const SMALLEST = 0.1;
const LARGEST = 3;
const STEP = 1.25;
const REST = 160;
/** Below this scale texts cannot be read, and only shapes and titles are drawn. */
const FAR = 0.4;

export class Viewport {
  /**
   * @param host the window onto the sheets
   * @param sheets lie above each other and are moved together
   */
  constructor(host, ...sheets) {
    this.host = host;
    this.sheets = sheets;
    this.x = 0;
    this.y = 0;
    this.scale = 1;
    this.moved = false;
  }

  apply() {
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.sheets.forEach((sheet) => sheet.classList.remove('gliding')), REST);
    for (const sheet of this.sheets) {
      sheet.classList.add('gliding');
      sheet.style.transform = `translate(${this.x}px, ${this.y}px) scale(${this.scale})`;
      sheet.classList.toggle('far', this.scale < FAR);
    }
  }

  /** Shows all of a rectangle of the sheet in the middle, but not larger than its natural size. */
  fit(all, smallest = SMALLEST) {
    const { clientWidth, clientHeight } = this.host;
    this.scale = Math.max(
      smallest,
      Math.min(1, (clientWidth - 2 * MARGIN) / all.width, (clientHeight - 2 * MARGIN) / all.height),
    );
    this.x = (clientWidth - all.width * this.scale) / 2 - all.x * this.scale;
    this.y = Math.max(MARGIN, (clientHeight - all.height * this.scale) / 2) - all.y * this.scale;
    if (all.width * this.scale > clientWidth) {
      this.x = MARGIN - all.x * this.scale;
    }
    this.moved = false;
    this.apply();
  }

  /** How much of the height of the sheet is in sight where all of a width is. */
  heightFor(width) {
    const { clientWidth, clientHeight } = this.host;
    return (clientHeight - 2 * MARGIN) / Math.min(1, (clientWidth - 2 * MARGIN) / width);
  }

  /** Where not all of the width is in sight, what is around a place of it. */
  lookAt(x, { x: left, width }) {
    const { clientWidth } = this.host;
    const room = clientWidth / this.scale;
    if (width > room) {
      const margin = MARGIN / this.scale;
      const from = Math.min(Math.max(x - room / 2, left - margin), left + width + margin - room);
      this.x = -from * this.scale;
      this.apply();
    }
  }

  pan(dx, dy) {
    this.moved = true;
    this.x += dx;
    this.y += dy;
    this.apply();
  }

  /** Zooms so that what is under a point of the screen stays there; the middle if none is given. */
  zoom(factor, clientX, clientY) {
    const frame = this.host.getBoundingClientRect();
    const px = (clientX ?? frame.left + frame.width / 2) - frame.left;
    const py = (clientY ?? frame.top + frame.height / 2) - frame.top;
    const scale = Math.min(LARGEST, Math.max(SMALLEST, this.scale * factor));
    this.x = px - ((px - this.x) * scale) / this.scale;
    this.y = py - ((py - this.y) * scale) / this.scale;
    this.scale = scale;
    this.moved = true;
    this.apply();
  }

  closer() {
    this.zoom(STEP);
  }

  farther() {
    this.zoom(1 / STEP);
  }

  /** The point of the sheet under a point of the screen. */
  point(clientX, clientY) {
    const frame = this.host.getBoundingClientRect();
    return [(clientX - frame.left - this.x) / this.scale, (clientY - frame.top - this.y) / this.scale];
  }

  /** Brings a rectangle of the sheet into sight. */
  reveal(box) {
    const { clientWidth, clientHeight } = this.host;
    const left = box.x * this.scale + this.x;
    const top = box.y * this.scale + this.y;
    const over = (start, size, room) =>
      start < 12 ? 12 - start : start + size > room - 12 ? Math.max(room - 12 - start - size, 12 - start) : 0;
    const dx = over(left, box.width * this.scale, clientWidth);
    const dy = over(top, box.height * this.scale, clientHeight);
    if (dx || dy) {
      this.pan(dx, dy);
    }
  }

  get state() {
    return { x: this.x, y: this.y, scale: this.scale };
  }

  restore({ x, y, scale }) {
    Object.assign(this, { x, y, scale, moved: true });
    this.apply();
  }
}
