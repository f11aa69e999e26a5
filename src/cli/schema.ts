import { writeFileSync } from 'node:fs';
import { kindsMarkdown } from './kindsTable';
import { docketSchemaJson, finishingSchemaJson, recipeSchemaJson } from './schemaJson';

// npm run schema: writes the schemas, and the tables of all kinds, where they are published.
writeFileSync('docs/docket.schema.json', docketSchemaJson());
writeFileSync('docs/recipe.schema.json', recipeSchemaJson());
writeFileSync('docs/finishing.schema.json', finishingSchemaJson());
writeFileSync('docs/kinds.md', kindsMarkdown());
