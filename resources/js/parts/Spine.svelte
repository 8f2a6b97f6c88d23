<script lang="ts">
    import { route } from '../router';
    import { session } from '../state/session.svelte';
    import { waiting } from '../state/waiting';

    const { tasks, signOffs, slips } = waiting();
    const records = $derived(session.schema?.types.find((type) => type.name === 'ticket') ?? session.schema?.types[0]);
    const tabs = $derived([
        { label: 'Today', to: '/', on: route.pathname === '/' },
        { label: 'Records', to: `/records/${records?.name}`, on: route.pathname.startsWith('/records') },
        { label: 'Rules', to: '/rules', on: route.pathname.startsWith('/rules') },
        { label: 'Tasks', to: '/tasks', on: route.pathname.startsWith('/tasks'), count: tasks.data?.mineOpen },
        { label: 'Sign-offs', to: '/sign-offs', on: route.pathname.startsWith('/sign-offs'), count: signOffs.data?.mineWaiting },
        { label: 'Slips', to: '/slips', on: route.pathname === '/slips', count: slips.data?.mineWaiting },
        ...(session.has('see_ledger') ? [{ label: 'Ledger', to: '/ledger', on: route.pathname.startsWith('/ledger') }] : []),
        ...(session.me?.hasMailRoom ? [{ label: 'Mail room', to: '/mail-room', on: route.pathname.startsWith('/mail-room') }] : []),
        { label: 'Setup', to: '/setup', on: route.pathname.startsWith('/setup') },
    ]);
</script>

<nav class="spine" aria-label="Main">
    <img class="mark" src="/mark.svg" alt="" />
    {#each tabs as tab (tab.label)}
        <a class="tab" class:on={tab.on} href={tab.to} aria-current={tab.on ? 'page' : undefined}>
            {tab.label}
            {#if tab.count}<span class="count" aria-label="{tab.count} open">{tab.count}</span>{/if}
        </a>
        {#if tab.label === 'Records' && tab.on}
            <div class="below" role="group" aria-label="Kinds of record">
                {#each session.schema?.types ?? [] as type (type.name)}
                    {@const on = route.pathname === `/records/${type.name}` || route.pathname.startsWith(`/records/${type.name}/`)}
                    <a class:on href="/records/{type.name}" aria-current={on ? 'page' : undefined}>{type.plural}</a>
                {/each}
            </div>
        {/if}
    {/each}
    <div class="foot">Vivid<br />Ledger</div>
</nav>
