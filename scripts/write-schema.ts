import { writeFileSync } from 'node:fs';
import { CURRENT_VERSION } from '../src/core/plan';
import { systemJsonSchema } from '../src/core/plan/jsonSchema';

/** Writes the published JSON Schema anew; `npm run schema` after a change of the validator. */
writeFileSync(`docs/format/system-v${CURRENT_VERSION}.schema.json`, `${JSON.stringify(systemJsonSchema(), null, 2)}\n`);
