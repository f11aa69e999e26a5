// npm run kinds: writes the lists of the files that each kind has in words and forms, from the tuples of kinds in core.
import { existsSync, writeFileSync } from 'node:fs';
import { FAMILIES, kindsFile } from './lib/kindsFile';

for (const family of FAMILIES) writeFileSync(family.file, kindsFile(family, existsSync));
