import { type JsonSchema, messageJsonSchema } from '@roof-chart/core/sheets/jsonSchema';
import { type Answer, ANY_ENDPOINT, type Endpoint, ENDPOINTS } from './endpoints';

const DESCRIPTION =
  'Plans, their edits and versions. JSON in UTF-8; body limit 1 MB, 4 MB for edits, 8 MB for a plan file. If a passphrase is set, sign in at /api/session or send the token as `Authorization: Bearer`.';

interface OpenApi {
  readonly openapi: '3.1.0';
  readonly info: { readonly title: string; readonly version: string; readonly description: string };
  readonly paths: { readonly [path: string]: { readonly [method: string]: JsonSchema } };
  readonly components: { readonly schemas: JsonSchema };
}

type Components = Map<string, JsonSchema>;

function content({ schema, media }: Pick<Answer, 'schema' | 'media'>, components: Components): JsonSchema {
  if (media !== undefined) return { content: { [media]: {} } };
  return schema ? { content: { 'application/json': { schema: messageJsonSchema(schema, components) } } } : {};
}

const answers = (list: Endpoint['answers'], components: Components): JsonSchema =>
  Object.fromEntries(
    Object.entries(list).map(([status, answer]) => [status, { description: answer.description, ...content(answer, components) }]),
  );

function parameters({ path = {}, query, headers = {} }: Endpoint, components: Components): JsonSchema {
  const parameters = query ? (messageJsonSchema(query, components)['properties'] as { readonly [name: string]: JsonSchema }) : {};
  const list = [
    ...Object.entries(path).map(([name, schema]) => ({ name, in: 'path', required: true, schema: messageJsonSchema(schema, components) })),
    ...Object.entries(parameters).map(([name, schema]) => ({ name, in: 'query', schema })),
    ...Object.entries(headers).map(([name, description]) => ({
      name,
      in: 'header',
      required: true,
      schema: { type: 'string' },
      description,
    })),
  ];
  return list.length > 0 ? { parameters: list } : {};
}

function operation(endpoint: Endpoint, components: Components): JsonSchema {
  const { summary, request, media, answers: own } = endpoint;
  const body = content({ ...(request ? { schema: request } : {}), ...(media === undefined ? {} : { media }) }, components);
  return {
    summary,
    ...parameters(endpoint, components),
    ...(request || media !== undefined ? { requestBody: { required: true, ...body } } : {}),
    responses: answers({ ...ANY_ENDPOINT, ...own }, components),
  };
}

/** The HTTP interface as an OpenAPI 3.1 document, made from the schemas that the server validates with. */
export function openApi(): OpenApi {
  const components: Components = new Map();
  const paths: { [path: string]: { [method: string]: JsonSchema } } = {};
  for (const [route, endpoint] of Object.entries(ENDPOINTS)) {
    const [method, path] = route.split(' ') as [string, string];
    paths[path] = { ...paths[path], [method]: operation(endpoint, components) };
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Roof Chart', version: '0.1.0', description: DESCRIPTION },
    paths,
    components: { schemas: Object.fromEntries(components) },
  };
}
