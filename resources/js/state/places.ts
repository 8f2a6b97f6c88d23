import { session } from './session.svelte';

/** The screens that there are for whoever is signed in, in the order of the spine. */
export function places(): { name: string; label: string; to: string }[] {
    const types = session.schema?.types ?? [];
    const records = types.find((type) => type.name === 'ticket') ?? types[0];
    return [
        { name: 'today', label: 'Today', to: '/' },
        { name: 'records', label: 'Records', to: `/records/${records?.name}` },
        { name: 'rules', label: 'Rules', to: '/rules' },
        { name: 'tasks', label: 'Tasks', to: '/tasks' },
        { name: 'sign-offs', label: 'Sign-offs', to: '/sign-offs' },
        { name: 'slips', label: 'Slips', to: '/slips' },
        ...(session.has('see_ledger') ? [{ name: 'ledger', label: 'Ledger', to: '/ledger' }] : []),
        ...(session.me?.hasMailRoom ? [{ name: 'mail-room', label: 'Mail room', to: '/mail-room' }] : []),
        { name: 'setup', label: 'Setup', to: '/setup' },
    ];
}

/** The lists of records that there are. */
export function lists(): { label: string; to: string }[] {
    return (session.schema?.types ?? []).map((type) => ({ label: type.plural, to: `/records/${type.name}` }));
}

/** Whether somebody is at a place, or at something below it. */
export function isAt(to: string, pathname: string): boolean {
    const root = to.split('/').slice(0, 2).join('/');
    return root === '/' ? pathname === '/' : pathname === root || pathname.startsWith(`${root}/`);
}

/** Whether both leaves are seen at once: a phone shows one. */
export function isWide(): boolean {
    return matchMedia('(min-width: 641px)').matches;
}
