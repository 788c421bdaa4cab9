import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { familiesPage } from './familiesPage';

const path = join(import.meta.dirname, '../../../docs/families.md');
writeFileSync(path, await format(familiesPage(), { ...(await resolveConfig(path)), parser: 'markdown' }));
