// Shows the OpenAPI description: every operation with its parameters, what it takes and what it gives.

const make = (tag, className, text) =>
  Object.assign(document.createElement(tag), { className, textContent: text ?? '' });

const DEEPEST = 2;

const nameOf = (schema) => schema.$ref.split('/').at(-1);

/** A schema in words: its attributes in braces, "list of …", a type. What stands deep within others goes by its name. */
function words(description, schema, depth) {
  if (!schema) {
    return '';
  }
  if (schema.$ref) {
    return depth < DEEPEST ? `{ ${attributes(description, schema, depth)} }` : nameOf(schema);
  }
  return schema.type === 'array'
    ? `list of ${words(description, schema.items, depth)}`
    : (schema.format ?? schema.type ?? 'any');
}

/** The attributes of what is sent, each with its type. */
function attributes(description, schema, depth) {
  const properties = schema?.$ref ? description.components.schemas[nameOf(schema)]?.properties : schema?.properties;
  return Object.entries(properties ?? {})
    .map(([name, value]) => `${name}: ${words(description, value, depth + 1)}`)
    .join(', ');
}

function operation(description, method, path, { summary, parameters, requestBody }) {
  const row = document.createElement('tr');
  const sent = Object.values(requestBody?.content ?? {})[0]?.schema;
  const query = (parameters ?? []).filter((each) => each.in === 'query').map((each) => each.name);
  const what = document.createElement('td');
  what.append(make('div', '', summary));
  if (query.length) {
    what.append(make('div', 'quiet small', `asks with ${query.join(', ')}`));
  }
  if (sent) {
    what.append(make('div', 'quiet small', `takes { ${attributes(description, sent, 0) || 'any JSON object'} }`));
  }
  row.append(
    make('td', 'mono w-[56px]', method.toUpperCase()),
    make('td', 'mono w-[52%]', path.replace('/api/projects/{projectId}', '…')),
    what,
  );
  return row;
}

export async function startApiDocs() {
  const place = document.getElementById('api');
  if (!place) {
    return;
  }
  const example = document.getElementById('api-example');
  example.textContent = example.textContent.replace('ADDRESS', location.origin);
  const description = await (await fetch(place.dataset.description)).json();
  const groups = new Map();
  Object.entries(description.paths)
    .sort(([one], [other]) => (one < other ? -1 : 1))
    .forEach(([path, methods]) =>
      Object.entries(methods).forEach(([method, each]) => {
        const tag = each.tags?.[0] ?? 'Other';
        groups.set(tag, [...(groups.get(tag) ?? []), operation(description, method, path, each)]);
      }),
    );
  place.replaceChildren(
    make('p', 'section quiet small', '… stands for /api/projects/{projectId}'),
    ...[...groups.keys()].sort().map((tag) => {
      const section = make('section', 'section');
      const table = make('table', 'rows');
      table.append(...groups.get(tag));
      section.append(make('h2', '', tag.replace(/^\d+ /, '')), table);
      return section;
    }),
  );
}
