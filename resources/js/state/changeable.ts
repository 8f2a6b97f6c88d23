import type { Resources } from '../api/client';

/** Whether people give a field its value: it is not the application's own, not worked out, and theirs to change. */
export function isChangeable(field: Resources['FieldResource']): boolean {
    return !field.system && !field.readOnly && field.formula === null && field.numbering === null;
}
