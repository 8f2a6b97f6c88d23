import type { Shapes } from '../../../api/client';
import type { ConditionDraft } from '../../../state/written';

/** The condition that holds for the records of a group. */
export function ofGroup(by: string, group: Pick<Shapes['GroupShape'], 'value' | 'key'>): ConditionDraft {
    if (group.value === null) return { kind: 'is_empty', field: by };
    return { kind: 'is', field: by, value: typeof group.value === 'boolean' ? group.value : (group.key ?? '') };
}
