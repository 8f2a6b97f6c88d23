import type { Resources } from '../../api/client';
import { SETS } from '../../parts/offers';
import type { Json } from '../../state/pointer';

/** What was chosen for a field, as the API takes it: another record by its id, whose number a person reads. */
export function taken(field: Resources['FieldResource'], values: Json[]): Json {
    if (field.type === 'reference') return values[0] ? Number(String(values[0]).split('-').at(-1)) : null;
    if (SETS.includes(field.type)) return values;
    return values[0] === '' ? null : (values[0] ?? null);
}
