/** Laying the OpenAPI document out as lines a person reads. */
interface Schema {
  $ref?: string;
  type?: string;
  title?: string;
  description?: string;
  const?: unknown;
  enum?: unknown[];
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
}
interface Operation {
  operationId: string;
  description?: string;
  summary?: string;
  parameters?: { name: string; in: string; required?: boolean; schema: Schema }[];
  requestBody?: { content: Record<string, { schema: Schema }> };
  responses: Record<string, { content?: Record<string, { schema: Schema }> }>;
}
export interface OpenApi {
  info: { title: string; version: string; description: string };
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}
interface Field {
  name: string;
  type: string;
  required: boolean;
}
interface Method {
  id: string;
  verb: string;
  path: string;
  says: string;
  bodies: { title: string; fields: Field[] }[];
}

const shortName = (ref: string): string => ref.split('/').at(-1) ?? ref;

/** Write a schema's type in a few words. */
export function typeOf(schema: Schema): string {
  if (schema.$ref) return shortName(schema.$ref);
  if (schema.const !== undefined) return JSON.stringify(schema.const);
  if (schema.enum) return schema.enum.map((value) => JSON.stringify(value)).join(' | ');
  const either = schema.anyOf ?? schema.oneOf;
  if (either) return [...new Set(either.map(typeOf))].join(' | ');
  if (schema.type === 'array') return `list of ${schema.items ? typeOf(schema.items) : 'any'}`;
  return schema.type ?? 'any';
}

function fieldsOf(schema: Schema, document: OpenApi): Field[] {
  const whole = schema.$ref ? document.components.schemas[shortName(schema.$ref)] : schema;
  const required = new Set(whole?.required ?? []);
  return Object.entries(whole?.properties ?? {}).map(([name, field]) => ({
    name,
    type: typeOf(field) + (field.description ? `: ${field.description}` : ''),
    required: required.has(name),
  }));
}

export function methodsOf(document: OpenApi): Method[] {
  return Object.entries(document.paths).flatMap(([path, verbs]) =>
    Object.entries(verbs).map(([verb, operation]) => describe(path, verb, operation, document)),
  );
}

function describe(path: string, verb: string, operation: Operation, document: OpenApi): Method {
  const bodies: Method['bodies'] = [];
  const parameters = operation.parameters ?? [];
  if (parameters.length) {
    const fields = parameters.map((parameter) => ({
      name: parameter.name,
      type: typeOf(parameter.schema),
      required: parameter.required ?? false,
    }));
    bodies.push({ title: 'Parameters', fields });
  }
  const sent = operation.requestBody?.content['application/json']?.schema;
  if (sent) {
    bodies.push({ title: `Send ${typeOf(sent)}`, fields: fieldsOf(sent, document) });
  }
  const answered = Object.entries(operation.responses).find(([status]) => status.startsWith('2'));
  const answer = answered?.[1].content?.['application/json']?.schema;
  if (answer) {
    bodies.push({
      title: `Answers ${answered?.[0]} ${typeOf(answer)}`,
      fields: fieldsOf(answer, document),
    });
  }
  return {
    id: operation.operationId,
    verb: verb.toUpperCase(),
    path,
    says: operation.description ?? operation.summary ?? '',
    bodies,
  };
}
