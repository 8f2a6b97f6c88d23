import type { Resources } from '../../api/client';
import { counted, say } from '../../state/words';

/** Whose records each act extends to, by record type; fields that are not simply seen and changed. */
export type RoleFile = {
    label: string;
    duties: string[];
    reaches: Record<string, Record<string, string>>;
    fields: Record<string, Record<string, string>>;
};

/** What stands for every record type that a role does not name. */
export const EVERY_OTHER = '*';

/** Acts and reaches, as short as the head and the cells of a table. */
export const SHORT: Record<string, string> = {
    read: 'See',
    create: 'Make',
    change: 'Change',
    delete: say('Delete'),
    export: 'Export',
    run: 'Run rules',
    none: '–',
    own: say('own'),
    team: say('team'),
    subtree: say('people'),
    all: say('all'),
};

export function fileOf(role: Resources['RoleResource'] | null): RoleFile {
    if (!role) return { label: '', duties: [], reaches: { [EVERY_OTHER]: { read: 'own' } }, fields: {} };
    return JSON.parse(JSON.stringify({ label: role.label, duties: role.duties, reaches: role.reaches, fields: role.fields })) as RoleFile;
}

/** A role in a line: the widest it sees and changes, and with what it is trusted. */
export function glance(role: Resources['RoleResource'], offers: Resources['RolesResource']): string {
    if (role.isFixed) return 'May do everything, always.';
    const label = (reach: string) => offers.reaches.find((one) => one.kind === reach)?.label ?? reach;
    const widest = (act: string) => {
        const order = offers.reaches.map((one) => one.kind);
        const all = Object.values(fileOf(role).reaches).map((of) => of[act] ?? 'none');
        return all.sort((one, other) => order.indexOf(other) - order.indexOf(one))[0] ?? 'none';
    };
    const words = { read: say('sees'), change: say('changes'), delete: say('deletes') } as Record<string, string>;
    const byReach = new Map<string, string[]>();
    for (const act of ['read', 'change', 'delete']) {
        if (widest(act) !== 'none') byReach.set(widest(act), [...(byReach.get(widest(act)) ?? []), words[act] ?? act]);
    }
    const said = [...byReach].map(([reach, acts]) => `${acts.join(', ')} ${label(reach)} records`).join(', ');
    const trusted = role.duties.length ? `; ${counted(role.duties.length, ['# duty besides', '# duties besides'])}` : '';
    const line = said || 'sees no records';
    return `${line.charAt(0).toUpperCase()}${line.slice(1)}${trusted}.`;
}
