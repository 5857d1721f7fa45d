import assert from 'node:assert/strict';
import { test } from 'node:test';
import { librariesOf } from '../licences.mjs';

test('licences are known by their SPDX identifiers, however a library states them', () => {
  const of = (stated) => librariesOf(`g:a\t1.0\thttps://a.example\t${stated}`)[0].licences;
  const apache = ['Apache 2.0', 'Apache License 2.0', 'Apache License, Version 2.0', 'Apache-2.0'];
  for (const stated of [...apache, 'The Apache License, Version 2.0', 'The Apache Software License, version 2.0']) {
    assert.deepEqual(of(stated), ['Apache-2.0'], stated);
  }
  assert.deepEqual(of('EPL 1.0 OR MPL 2.0'), ['EPL-1.0', 'MPL-2.0']);
  assert.deepEqual(of('Eclipse Distribution License - v 1.0'), ['BSD-3-Clause']);
  assert.deepEqual(of('Eclipse Public License (EPL) 2.0'), ['EPL-2.0']);
  assert.deepEqual(of('EPL 2.0 OR GPL2 w/ CPE'), ['EPL-2.0', 'GPL-2.0-only']);
});

test('a licence that is not known stops the build and names the library', () => {
  assert.throws(() => librariesOf('g:a\t1.0\t\tUnknown license'), /'Unknown license' of g:a/);
});
