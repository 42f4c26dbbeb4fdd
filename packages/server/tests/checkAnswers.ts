import type { RequestHandler, Response } from 'express';
import { ANY_ENDPOINT, type Answer, ENDPOINTS } from '@roof-chart/api/endpoints';

const ROUTES = Object.entries(ENDPOINTS).map(([route, endpoint]) => {
  const [method, path] = route.split(' ') as [string, string];
  return { method: method.toUpperCase(), path: new RegExp(`^${path.replaceAll('.', '\\.').replaceAll(/\{\w+\}/g, '[^/]+')}$`), endpoint };
});

/** What the API says of this answer; undefined for addresses that it does not have. */
function answerOf(method: string, path: string, status: number): Answer | undefined {
  // The first that fits: a fixed path stands before one with a name in its place.
  const found = ROUTES.filter((route) => route.method === method && route.path.test(path)).toSorted(
    (a, b) => Number(a.path.source.includes('[')) - Number(b.path.source.includes('[')),
  )[0];
  if (!found) return undefined;
  const answer = found.endpoint.answers[status] ?? ANY_ENDPOINT[status];
  if (!answer) throw new Error(`${method} ${path} answers ${status}, which the API does not have.`);
  return answer;
}

function check(method: string, path: string, res: Response, body: unknown): void {
  const answer = answerOf(method, path, res.statusCode);
  if (!answer) return;
  if (!answer.schema) throw new Error(`${method} ${path} answers ${res.statusCode} with a body, which the API does not have.`);
  const { error } = answer.schema.required().validate(JSON.parse(JSON.stringify(body)), { convert: false });
  if (error) throw new Error(`${method} ${path} answers ${res.statusCode}: ${error.message}`);
}

/** Holds every JSON answer against what the API says of it; one that differs is an error of the server. */
export const checkAnswers: RequestHandler = (req, res, next) => {
  const { method, path } = req;
  const json = res.json.bind(res);
  res.json = (body: unknown) => {
    check(method, path, res, body);
    return json(body);
  };
  next();
};
