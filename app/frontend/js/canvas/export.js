// A drawing as a file or on paper, as it is on the screen: the shapes with their styles and fonts written into them.

const STYLES = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'paint-order',
  'font-family',
  'font-size',
  'font-style',
  'font-weight',
  'opacity',
  'text-anchor',
];
const HELPERS = '.join, .grip, .border, .reach, .end, .aids, .toggle';
const MARGIN = 20;
const FONTS = [
  ['Hanken Grotesk', 'hanken-grotesk-latin-wght-normal', '100 900'],
  ['JetBrains Mono', 'jetbrains-mono-latin-wght-normal', '100 800'],
];

async function asData(address) {
  const blob = await (await fetch(address)).blob();
  return new Promise((done) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result);
    reader.readAsDataURL(blob);
  });
}

async function fontFaces() {
  const faces = await Promise.all(
    FONTS.map(
      async ([name, file, weight]) =>
        `@font-face{font-family:"${name}";font-weight:${weight};src:url(${await asData(`/fonts/${file}.woff2`)})}`,
    ),
  );
  return faces.join('');
}

/** Writes what the page's style sheets say into each element. */
function dress(from, to) {
  const style = getComputedStyle(from);
  STYLES.forEach((name) => to.setAttribute(name, style.getPropertyValue(name)));
  [...from.children].forEach((child, i) => dress(child, to.children[i]));
}

/**
 * The drawing as an SVG document that stands for itself.
 *
 * @param withFonts whether the fonts are in it; a page that has them needs them not
 */
export async function asSvg(canvas, withFonts = true) {
  const { sheet, scene } = canvas;
  const wasFar = sheet.classList.contains('far');
  sheet.classList.remove('far');
  const chosen = [...canvas.chosen];
  const selected = [...sheet.querySelectorAll('.selected')];
  canvas.choose([]);
  selected.forEach((node) => node.classList.remove('selected'));
  const copy = sheet.cloneNode(true);
  dress(sheet, copy);
  sheet.classList.toggle('far', wasFar);
  canvas.choose(chosen);
  selected.forEach((node) => node.classList.add('selected'));
  copy.querySelectorAll(HELPERS).forEach((node) => node.remove());
  copy.querySelectorAll('*').forEach((node) => {
    ['class', 'tabindex', 'data-select', 'data-key', 'data-line', 'role', 'aria-roledescription'].forEach((name) =>
      node.removeAttribute(name),
    );
  });
  const all = scene.all;
  const [width, height] = [all.width + 2 * MARGIN, all.height + 2 * MARGIN];
  ['style', 'class', 'id', 'data-editable', 'role', 'tabindex'].forEach((name) => copy.removeAttribute(name));
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', `${all.x - MARGIN} ${all.y - MARGIN} ${width} ${height}`);
  copy.setAttribute('width', Math.ceil(width));
  copy.setAttribute('height', Math.ceil(height));
  if (withFonts) {
    const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
    style.textContent = await fontFaces();
    copy.prepend(style);
  }
  return new XMLSerializer().serializeToString(copy);
}

/** Any picture of the page as an SVG document that stands for itself. */
export async function standing(svg) {
  const copy = svg.cloneNode(true);
  dress(svg, copy);
  copy.querySelectorAll('*').forEach((node) => {
    [...node.attributes]
      .filter(({ name }) => name === 'class' || name.startsWith('data-') || name === 'href')
      .forEach(({ name }) => node.removeAttribute(name));
  });
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = await fontFaces();
  copy.prepend(style);
  return new XMLSerializer().serializeToString(copy);
}

/** The drawing as a picture of so many points for each px. */
export async function asPng(canvas, density = 2) {
  return painted(await asSvg(canvas), density);
}

/** An SVG document as a picture of so many points for each px. */
export async function painted(text, density = 2) {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const surface = document.createElement('canvas');
  surface.width = image.width * density;
  surface.height = image.height * density;
  const brush = surface.getContext('2d');
  brush.fillStyle = '#fff';
  brush.fillRect(0, 0, surface.width, surface.height);
  brush.drawImage(image, 0, 0, surface.width, surface.height);
  return new Promise((done) => surface.toBlob(done, 'image/png'));
}

export function download(blob, name) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/** Prints the drawing alone, as large as the paper allows. */
export async function print(canvas) {
  const page = document.createElement('div');
  page.className = 'print-sheet';
  page.innerHTML = await asSvg(canvas, false);
  const drawing = page.querySelector('svg');
  drawing.removeAttribute('width');
  drawing.removeAttribute('height');
  document.body.append(page);
  document.body.classList.add('printing-drawing');
  const after = () => {
    page.remove();
    document.body.classList.remove('printing-drawing');
  };
  addEventListener('afterprint', after, { once: true });
  window.print();
}
