// The licences of everything in the server's jar: the libraries that Maven listed and the npm packages that were bundled or
// copied. Writes licences.txt, with the full texts, and licences.json for the page.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import spdx from 'spdx-license-list/full.js';

/** Names of licences as libraries in Maven's registry state them, and their SPDX identifiers. */
const NAMES = [
  [/^(the )?apache(-| )(software )?(license,? )?(version )?2\.0$|^apache software license 2\.0$/i, 'Apache-2.0'],
  [/^(the )?apache software license, version 2\.0$|^(the )?apache license,? version 2\.0$/i, 'Apache-2.0'],
  [/^(e\.?d\.?l\.? 1\.0|eclipse distribution license.*1\.0)$/i, 'BSD-3-Clause'],
  [/^(epl(-| )1\.0|(the )?eclipse public license.*1\.0)$/i, 'EPL-1.0'],
  [/^(epl(-| )2\.0|(the )?eclipse public license.*2\.0)$/i, 'EPL-2.0'],
  [/^mpl(-| )2\.0$/i, 'MPL-2.0'],
  [/^gpl2 w\/ cpe$/i, 'GPL-2.0-only'],
  [/^(lgpl-2\.1-only|gnu lesser general public license version 2\.1.*)$/i, 'LGPL-2.1-only'],
  [/^(the )?bsd(-| )2-clause( license)?$/i, 'BSD-2-Clause'],
  [/^bsd(-| )3-clause$/i, 'BSD-3-Clause'],
  [/^mit( license)?$/i, 'MIT'],
  [/cc0/i, 'CC0-1.0'],
  [/^ofl-1\.1$/i, 'OFL-1.1'],
];

function identifier(name, component) {
  const found = NAMES.find(([pattern]) => pattern.test(name.trim()))?.[1];
  if (!found || !spdx[found]) {
    throw new Error(`licences.mjs does not know the licence '${name}' of ${component}; add it to NAMES`);
  }
  return found;
}

/** @param tsv lines of name, version, address and licences, as src/main/licences/java.ftl writes them */
export function librariesOf(tsv) {
  return tsv
    .split('\n')
    .filter((line) => line.includes('\t') && !line.startsWith('pyrite:'))
    .map((line) => {
      const [name, version, address, licences] = line.split('\t');
      return { name, version, address, licences: licences.split(' OR ').map((each) => identifier(each, name)) };
    });
}

function packageOf(folder) {
  const { name, version, homepage, repository, license } = JSON.parse(
    readFileSync(join(folder, 'package.json'), 'utf8'),
  );
  const file = readdirSync(folder).find((each) => /^licen[cs]e/i.test(each));
  const from = typeof repository === 'string' ? repository : repository?.url;
  const address = homepage ?? (from ?? '').replace(/^git\+/, '').replace(/\.git$/, '');
  const notice = file ? readFileSync(join(folder, file), 'utf8').trim() : '';
  return { name, version, address, licences: [identifier(license, name)], notice };
}

const byName = (a, b) => (a.name < b.name ? -1 : 1);

/**
 * @param modules the folder of npm packages
 * @param packages names of those that are in the jar
 * @param tsv the file of the libraries in the jar
 * @param out the folder of the jar's contents
 */
export function writeLicences(modules, packages, tsv, out) {
  const components = [
    ...librariesOf(readFileSync(tsv, 'utf8')).sort(byName),
    ...[...packages].map((name) => packageOf(join(modules, name))).sort(byName),
  ];
  const used = [...new Set(components.flatMap(({ licences }) => licences))].sort();
  const texts = used.map((id) => ({ id, name: spdx[id].name, text: spdx[id].licenseText.trim() }));
  mkdirSync(join(out, 'static'), { recursive: true });
  writeFileSync(join(out, 'licences.json'), JSON.stringify({ components, texts }));
  const rule = '-'.repeat(100);
  writeFileSync(
    join(out, 'static/licences.txt'),
    [
      'Pyrite contains these libraries, fonts and icons.',
      '',
      ...components.map(
        ({ name, version, address, licences }) =>
          `${name} ${version}: ${licences.join(' or ')}${address ? `\n    ${address}` : ''}`,
      ),
      ...components.filter(({ notice }) => notice).flatMap(({ name, notice }) => ['', rule, name, rule, '', notice]),
      ...texts.flatMap(({ id, name, text }) => ['', rule, `${id}: ${name}`, rule, '', text]),
      '',
    ].join('\n'),
  );
}
