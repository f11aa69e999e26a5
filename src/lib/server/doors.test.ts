import { expect, test } from 'vitest';
import { doorsOf, isLoopback, refusalOf } from './doors';

const own = doorsOf({ HOST: '127.0.0.1', ORIGIN: 'http://127.0.0.1:3000' });
const shop = doorsOf({ HOST: '0.0.0.0', ORIGIN: 'https://folder.shop.example' });
const JSON_BODY = { 'content-type': 'application/json' };
type Case = [string, typeof own, string, string, Record<string, string>, string | undefined];

test.each<Case>([
  ['by its address', own, 'GET', '/', { host: '127.0.0.1:3000' }, undefined],
  ['by another name of the loopback', own, 'GET', '/api/jobs', { host: 'localhost:3000' }, undefined],
  ['over IPv6', own, 'GET', '/', { host: '[::1]:3000' }, undefined],
  ['by a name that was pointed here', own, 'GET', '/api/jobs', { host: 'rebound.example:3000' }, 'door-host'],
  ['by no name', own, 'GET', '/', {}, 'door-host'],
  ['by a name that only begins like it', own, 'GET', '/', { host: '127.0.0.1.evil.example' }, 'door-host'],
  ['by the name of the shop', shop, 'GET', '/', { host: 'folder.shop.example' }, undefined],
  ['by its number, where only the name is known', shop, 'GET', '/', { host: '192.0.2.7:3000' }, 'door-host'],
  [
    'from its own page',
    own,
    'PUT',
    '/api/jobs/x',
    {
      host: 'localhost:3000',
      origin: 'http://localhost:3000',
      'sec-fetch-site': 'same-origin',
      ...JSON_BODY,
    },
    undefined,
  ],
  [
    'from its own page behind a proxy',
    shop,
    'PUT',
    '/api/jobs/x',
    { host: 'folder.shop.example:443', origin: 'https://folder.shop.example', ...JSON_BODY },
    undefined,
  ],
  ['from a program', own, 'POST', '/api/jobs', { host: 'localhost:3000', ...JSON_BODY }, undefined],
  [
    'from a foreign page',
    own,
    'POST',
    '/api/jobs',
    { host: 'localhost:3000', origin: 'http://evil.example', ...JSON_BODY },
    'door-origin',
  ],
  [
    'from another port of this machine',
    own,
    'POST',
    '/api/jobs',
    { host: 'localhost:3000', origin: 'http://localhost:8080', ...JSON_BODY },
    'door-origin',
  ],
  [
    'from a page without an origin',
    own,
    'POST',
    '/api/jobs',
    { host: 'localhost:3000', origin: 'null', ...JSON_BODY },
    'door-origin',
  ],
  [
    'from a foreign page that hides it',
    own,
    'DELETE',
    '/api/jobs/x',
    { host: 'localhost:3000', 'sec-fetch-site': 'cross-site' },
    'door-origin',
  ],
  [
    'read by a foreign page',
    own,
    'GET',
    '/api/jobs',
    { host: 'localhost:3000', 'sec-fetch-site': 'cross-site' },
    'door-origin',
  ],
  [
    'followed from a foreign page',
    own,
    'GET',
    '/jobs/x',
    { host: 'localhost:3000', 'sec-fetch-site': 'cross-site' },
    undefined,
  ],
  ['without a type', own, 'POST', '/api/jobs', { host: 'localhost:3000' }, 'door-type'],
  ['with U+0000', own, 'GET', '/api/jobs/%00', { host: 'localhost:3000' }, 'door-address'],
  ['with U+0000 in a query', own, 'GET', '/api/jobs?x=%00', { host: 'localhost:3000' }, 'door-address'],
  ['with half a character', own, 'GET', '/api/jobs/%c3', { host: 'localhost:3000' }, 'door-address'],
])('a request %s', (_, doors, method, path, headers, code) => {
  const request = { method, url: `http://x${path}`, headers: new Headers(headers) } as Request;
  expect(refusalOf(request, doors)?.code).toBe(code);
});

test.each([
  [undefined, false],
  ['127.0.0.1', true],
  ['127.8.0.1', true],
  ['::1', true],
  ['localhost', true],
  ['0.0.0.0', false],
  ['192.168.1.4', false],
  ['127.0.0.1.example', false],
])('HOST=%s is this machine alone: %s', (host, alone) => expect(isLoopback(host)).toBe(alone));
