import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
import { api, ask, type Resources } from '../../api/client';
import type { ConditionDraft } from '../../state/written';
import type { Arrangement } from './arrangement.svelte';

/** The condition that holds for the records of a group. */
export function ofGroup(by: string, group: Pick<Resources['GroupResource'], 'value' | 'key'>): ConditionDraft {
    if (group.value === null) return { kind: 'is_empty', field: by };
    return { kind: 'is', field: by, value: typeof group.value === 'boolean' ? group.value : (group.key ?? '') };
}

/** How many records of a list have each value of a field, and what their numbers add up to. */
export function groupsBy(of: () => { type: string; by: string; arrangement: Arrangement }) {
    return createQuery(() => {
        const { type, by, arrangement } = of();
        const query = {
            by,
            sums: arrangement.sums.join(',') || undefined,
            search: arrangement.search || undefined,
            filter: arrangement.condition(),
        };
        return {
            queryKey: ['records', type, 'groups', query],
            placeholderData: keepPreviousData,
            queryFn: () => ask(api.GET('/api/records/{type}/groups', { params: { path: { type }, query } })),
        };
    });
}

/** The first records of one group, in the order and the columns of the list. */
export function rowsIn(of: () => { type: string; condition: string | undefined; arrangement: Arrangement; most: number }) {
    return createQuery(() => {
        const { type, condition, arrangement, most } = of();
        const query = { ...arrangement.query, perPage: most, total: 'no' as const, filter: condition };
        return {
            queryKey: ['records', type, 'group', query],
            placeholderData: keepPreviousData,
            queryFn: () => ask(api.GET('/api/records/{type}', { params: { path: { type }, query } })),
        };
    });
}
