import { writeFileSync } from 'node:fs';
import { docketSchemaJson } from './schemaJson';

// npm run schema: writes the docket's schema where it is published.
writeFileSync('docs/docket.schema.json', docketSchemaJson());
