/** What is shown of an OpenAPI description. */
interface Schema {
  $ref?: string;
  type?: string | string[];
  items?: Schema;
  properties?: Record<string, Schema>;
}
type Content = Record<string, { schema?: Schema }>;
interface Operation {
  parameters?: { name: string; in: string; required?: boolean }[];
  requestBody?: { content: Content };
  responses?: Record<string, { content?: Content }>;
}
export interface Description {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

/** One call, in words. */
export interface Call {
  method: string;
  path: string;
  takes: string;
  gives: string;
}

/** All calls, in the order of their paths. */
export function calls(d: Description): Call[] {
  return Object.entries(d.paths)
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, o]) => ({
        method: method.toUpperCase(),
        path,
        takes: [
          ...(o.parameters ?? [])
            .filter((p) => p.in === 'query')
            .map((p) => '?' + p.name + (p.required ? '' : ' (may be left out)')),
          ...(o.requestBody ? [body(d, o.requestBody.content)] : []),
        ].join(', '),
        gives: Object.entries(o.responses ?? {})
          .filter(([status]) => status.startsWith('2'))
          .map(([status, r]) => `${status} ${r.content ? body(d, r.content) : ''}`.trim())
          .join(', '),
      })),
    );
}

function body(d: Description, content: Content): string {
  const [type, { schema }] = Object.entries(content)[0] ?? ['', {}];
  if (type === 'application/octet-stream') return 'the file itself';
  return schema ? fields(d, schema) : type;
}

/** The names of an object's fields; of a list, those of what it holds. */
function fields(d: Description, schema: Schema): string {
  if (schema.items) return 'list of ' + fields(d, schema.items);
  const of = schema.$ref ? d.components.schemas[schema.$ref.split('/').pop()!] : schema;
  return of?.properties
    ? '{ ' + Object.keys(of.properties).join(', ') + ' }'
    : [of?.type].flat().join(' or ');
}
