import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { test } from 'node:test';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../js', import.meta.url));
const modules = readdirSync(root, { recursive: true }).filter((name) => name.endsWith('.js'));
const layout = readFileSync(join(root, '../../src/main/resources/templates/frame/layout.html'), 'utf8');
const imports = new Map(
  modules.map((name) => [
    name,
    [...readFileSync(join(root, name), 'utf8').matchAll(/from '(\.[^']+)'/g)].map(([, path]) =>
      normalize(join(dirname(name), path)),
    ),
  ]),
);

test('no modules import each other in a circle', () => {
  const finished = new Set();
  const visit = (name, path) => {
    assert.ok(!path.includes(name), `${[...path, name].join(' → ')} is a circle`);
    if (!finished.has(name)) {
      imports.get(name).forEach((next) => visit(next, [...path, name]));
      finished.add(name);
    }
  };
  modules.forEach((name) => visit(name, []));
});

test('every module is reached from what a page loads, and every import exists', () => {
  const reached = new Set();
  const visit = (name) => {
    assert.ok(imports.has(name), `there is no ${name}`);
    if (!reached.has(name)) {
      reached.add(name);
      imports.get(name).forEach(visit);
    }
  };
  [...layout.matchAll(/src="\/js\/([^"]+)"/g)].forEach(([, script]) => visit(script));
  modules
    .flatMap((name) => [...readFileSync(join(root, name), 'utf8').matchAll(/new SharedWorker\('\/js\/([^']+)'/g)])
    .forEach(([, worker]) => visit(worker));
  assert.deepEqual(
    [...modules].filter((name) => !reached.has(name)),
    [],
  );
});
