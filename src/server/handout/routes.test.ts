import type { Express } from 'express';
import request from 'supertest';
import { testApp } from '../testApp';

let app: Express;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ app, close } = await testApp('handout_routes'));
}, 60_000);
afterAll(() => close());

const page = (inner: string) => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${inner}</svg>`;
const post = (body: object) =>
  request(app)
    .post('/api/handout/pdf')
    .send(body)
    .buffer(true)
    .parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (chunk: Buffer) => chunks.push(chunk));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    });

test('drawn pages become a PDF of as many pages on the paper asked for', async () => {
  const pages = [
    page('<path d="M0 0L9 9" stroke="#000"/>'),
    page('<text x="5" y="9" font-family="Alegreya Sans">a</text>'),
  ];
  const response = await post({ title: 'Marsh Lamps', paper: 'letter', pages });
  expect(response.status).toBe(200);
  expect(response.headers['content-disposition']).toContain('Marsh-Lamps.pdf');
  const text = (response.body as Buffer).toString('latin1');
  expect(text.startsWith('%PDF-')).toBe(true);
  expect(text.match(/\/Type \/Page\b/g)).toHaveLength(2);
  expect(text).toMatch(/\/MediaBox \[0 0 612 79[12]/);
});

test('a drawing cannot pull files of the machine into the PDF', async () => {
  const pages = [
    page('<image href="/etc/hostname" width="10" height="10"/><image href="file:///etc/passwd" width="9" height="9"/>'),
  ];
  const response = await post({ title: 'x', paper: 'a4', pages });
  expect(response.status).toBe(200);
  expect((response.body as Buffer).toString('latin1')).not.toContain('/Subtype /Image');
});

test.each([
  ['no page', { title: 'x', paper: 'a4', pages: [] }],
  ['another paper', { title: 'x', paper: 'a0', pages: [page('')] }],
  ['what is no drawing', { title: 'x', paper: 'a4', pages: ['<html>'] }],
])('%s is refused', async (_name, body) => {
  expect((await request(app).post('/api/handout/pdf').send(body)).status).toBe(400);
});
