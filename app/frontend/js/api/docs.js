// Shows the OpenAPI description: every operation with its parameters, what it takes and what it gives.

const make = (tag, className, text) => Object.assign(document.createElement(tag), { className, textContent: text ?? '' });

/** A schema in words: the name of a record, "list of …", a type. */
function words(schema) {
  if (!schema) {
    return '';
  }
  if (schema.$ref) {
    return schema.$ref.split('/').at(-1);
  }
  return schema.type === 'array' ? `list of ${words(schema.items)}` : schema.format ?? schema.type ?? 'any';
}

/** The attributes of what is sent, each with its type. */
function attributes(description, schema) {
  const properties = schema?.$ref ? description.components.schemas[schema.$ref.split('/').at(-1)]?.properties : schema?.properties;
  return Object.entries(properties ?? {}).map(([name, value]) => `${name}: ${words(value)}`).join(', ');
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
    what.append(make('div', 'quiet small', `takes { ${attributes(description, sent) || 'any JSON object'} }`));
  }
  row.append(make('td', 'mono w-[56px]', method.toUpperCase()), make('td', 'mono w-[52%]', path.replace('/api/projects/{projectId}', '…')), what);
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
  Object.entries(description.paths).forEach(([path, methods]) => Object.entries(methods).forEach(([method, each]) => {
    const tag = each.tags?.[0] ?? 'Other';
    groups.set(tag, [...(groups.get(tag) ?? []), operation(description, method, path, each)]);
  }));
  place.replaceChildren(make('p', 'section quiet small', '… stands for /api/projects/{projectId}'), ...[...groups.keys()].sort().map((tag) => {
    const section = make('section', 'section');
    const table = make('table', 'rows');
    table.append(...groups.get(tag));
    section.append(make('h2', '', tag.replace(/^\d+ /, '')), table);
    return section;
  }));
}
