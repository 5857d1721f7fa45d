// Builds what the pages need into the application's static resources: style sheet, scripts, bundled vendor libraries,
// fonts and the icon sheet. Run by Maven; nothing here is fetched at run time.
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { writeLicences } from './licences.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const out = join(here, '../target/classes/static');
const modules = join(here, 'node_modules');

const ICONS = [
  'list-checks',
  'chat-teardrop-text',
  'tree-structure',
  'wave-sine',
  'clock-counter-clockwise',
  'arrow-u-up-left',
  'arrow-u-up-right',
  'play',
  'stop',
  'magnifying-glass',
  'caret-right',
  'caret-down',
  'x',
  'plus',
  'minus',
  'squares-four',
  'keyboard',
  'pencil-simple',
  'sign-out',
  'download-simple',
  'arrows-vertical',
  'trash',
  'warning',
];

for (const folder of ['css', 'vendor', 'fonts']) {
  mkdirSync(join(out, folder), { recursive: true });
}

const fonts = [
  ['hanken-grotesk', 'hanken-grotesk-latin-wght-normal'],
  ['hanken-grotesk', 'hanken-grotesk-latin-ext-wght-normal'],
  ['jetbrains-mono', 'jetbrains-mono-latin-wght-normal'],
  ['jetbrains-mono', 'jetbrains-mono-greek-wght-normal'],
];
for (const [family, file] of fonts) {
  cpSync(join(modules, '@fontsource-variable', family, 'files', `${file}.woff2`), join(out, 'fonts', `${file}.woff2`));
}

const symbols = ICONS.map((name) => {
  const svg = readFileSync(join(modules, '@phosphor-icons/core/assets/regular', `${name}.svg`), 'utf8');
  return svg.replace(/<svg[^>]*>/, `<symbol id="${name}" viewBox="0 0 256 256">`).replace('</svg>', '</symbol>');
});
writeFileSync(join(out, 'icons.svg'), `<svg xmlns="http://www.w3.org/2000/svg">${symbols.join('')}</svg>`);

/** The npm packages of which something is in the jar. */
const shipped = new Set([
  'uplot',
  'tailwindcss',
  '@phosphor-icons/core',
  ...fonts.map(([name]) => `@fontsource-variable/${name}`),
]);

/** Bundles modules with what they import: a page fetches one file, not a hundred one after the other. */
async function bundle(options) {
  const { metafile } = await build({
    bundle: true,
    format: 'esm',
    target: 'es2022',
    minify: true,
    metafile: true,
    // What few pages need is fetched when they do.
    external: ['/vendor/*'],
    logLevel: 'warning',
    ...options,
  });
  for (const input of Object.keys(metafile.inputs)) {
    const found = input.match(/.*node_modules\/((?:@[^/]+\/)?[^/]+)\//);
    if (found) {
      shipped.add(found[1]);
    }
  }
}

/** Bundles what is exported from packages into a file of its own. */
const vendor = (contents, name) =>
  bundle({ stdin: { contents, resolveDir: here }, outfile: join(out, 'vendor', name) });

await vendor(
  `
  export { EditorState, Compartment, StateEffect, StateField } from '@codemirror/state';
  export { EditorView, keymap, lineNumbers, highlightActiveLine } from '@codemirror/view';
  export { highlightSpecialChars, drawSelection, hoverTooltip, Decoration } from '@codemirror/view';
  export { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
  export { StreamLanguage, HighlightStyle, syntaxHighlighting, bracketMatching, indentUnit } from '@codemirror/language';
  export { codeFolding, foldEffect, foldGutter, foldKeymap, foldService } from '@codemirror/language';
  export { autocompletion, completionKeymap, closeBrackets } from '@codemirror/autocomplete';
  export { setDiagnostics, lintGutter } from '@codemirror/lint';
  export { search, searchKeymap } from '@codemirror/search';
  export { tags } from '@lezer/highlight';
`,
  'editor.js',
);
await vendor(
  "export { default as Converter } from 'turndown'; export { tables } from '@joplin/turndown-plugin-gfm';",
  'markup.js',
);
cpSync(join(modules, 'uplot/dist/uPlot.min.css'), join(out, 'vendor/uplot.css'));
cpSync(join(modules, 'axe-core/axe.min.js'), join(here, '../target/axe.min.js'));
rmSync(join(out, 'js'), { recursive: true, force: true });
await bundle({
  entryPoints: ['main.js', 'frame/stream.js', 'frame/early.js'].map((name) => join(here, 'js', name)),
  outbase: join(here, 'js'),
  outdir: join(out, 'js'),
  sourcemap: true,
});

execFileSync(
  process.execPath,
  [
    join(modules, '@tailwindcss/cli/dist/index.mjs'),
    '--input',
    join(here, 'css/pyrite.css'),
    '--output',
    join(out, 'css/pyrite.css'),
    '--minify',
  ],
  { cwd: here, stdio: ['ignore', 'ignore', 'inherit'] },
);

writeLicences(modules, shipped, join(here, '../target/licences/java.tsv'), join(here, '../target/classes'));
