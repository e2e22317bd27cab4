import express, { Router, type Response } from 'express';
import { readFile } from 'node:fs/promises';
import path from 'node:path';

/** How the stand-in answers: tests switch it. */
export const answers = ['well', 'slow', 'failing', 'corrupt'] as const;
export type Answer = (typeof answers)[number];

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** A slow answer comes in so many pieces, one after another. */
const PIECES = 24;
const PAUSE = 250;

/**
 * A made-up supplier of textures: a catalogue, pictures of its packs, and the packs. It stands in for the places where people get textures
 * from; nothing outside is asked.
 * @param isTest `POST /behaviour` with `{"answers": "slow"}` makes it slow, failing or corrupt
 */
export function createSupplier(folder: string, isTest: boolean): Router {
  const supplier = Router();
  let answer: Answer = 'well';

  if (isTest)
    supplier.post('/behaviour', express.json(), (request, response) => {
      const wanted = (request.body as { answers?: Answer } | undefined)?.answers;
      if (!wanted || !answers.includes(wanted))
        return void response
          .status(400)
          .type('text')
          .send(`answers is one of ${answers.join(', ')}.`);
      answer = wanted;
      response.json({ answers: answer });
    });

  const send = async (response: Response, file: string, type: string) => {
    const bytes = await readFile(path.join(folder, file)).catch(() => null);
    if (!bytes) return void response.status(404).type('text').send('The supplier has no such thing.');
    if (answer === 'failing') return void response.status(503).type('text').send('The supplier is out of order.');
    response.set('Cache-Control', 'no-store').type(type);
    // Half of it, with nothing to say that the rest is missing.
    const body = answer === 'corrupt' ? bytes.subarray(0, Math.floor(bytes.length / 2)) : bytes;
    response.set('Content-Length', String(body.length));
    if (answer !== 'slow') return void response.send(body);
    let gone = false;
    response.on('close', () => (gone = true));
    const step = Math.ceil(body.length / PIECES);
    for (let at = 0; at < body.length && !gone; at += step) {
      await wait(PAUSE);
      response.write(body.subarray(at, at + step));
    }
    response.end();
  };
  supplier.get('/catalogue.json', (_request, response) => send(response, 'catalogue.json', 'json'));
  supplier.get('/previews/:id.jpg', (request, response) => send(response, `${name(request.params.id)}.jpg`, 'jpg'));
  supplier.get('/packs/:id.zip', (request, response) => send(response, `${name(request.params.id)}.zip`, 'zip'));
  supplier.use((_request, response) => void response.status(404).type('text').send('The supplier has no such thing.'));
  return supplier;
}

/** Only letters, digits and hyphens: a name never leads out of the folder. */
const name = (id: string) => id.replace(/[^a-z0-9-]/gi, '');
