import { readdir, readFile, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

/** What is made smaller by it: pictures and fonts of the web are packed already. */
const PACKED = new Set(['.css', '.html', '.js', '.json', '.mjs', '.svg', '.ttf', '.txt', '.wasm', '.xml']);
/** The highest quality takes nearly thirty times as long, for a twelfth less. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 7 } };

/** Lays a packed copy (.gz and .br, RFC 1952 and RFC 7932) beside every file of a directory that shrinks by it. */
export async function compress(directory) {
  const files = await readdir(directory, { recursive: true, withFileTypes: true }).catch(() => []);
  await Promise.all(
    files
      .filter((file) => file.isFile() && PACKED.has(extname(file.name)))
      .map(async ({ parentPath, name }) => {
        const path = join(parentPath, name);
        const bytes = await readFile(path);
        await Promise.all([
          promisify(gzip)(bytes).then((packed) => writeFile(`${path}.gz`, packed)),
          promisify(brotliCompress)(bytes, BROTLI).then((packed) => writeFile(`${path}.br`, packed)),
        ]);
      }),
  );
}
