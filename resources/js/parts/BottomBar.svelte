<script lang="ts">
    import { CalendarCheck, Ellipsis, Layers, ListTodo, Stamp } from '@lucide/svelte';
    import { route } from '../router';
    import { session } from '../state/session.svelte';
    import { waiting } from '../state/waiting';

    /* Where the spine stands on a desk, a phone has a bar under the thumb; what is used less often is behind "More". */
    const { tasks, signOffs } = waiting();
    let more = $state(false);
    const first = $derived(session.schema?.types.find((type) => type.name === 'ticket') ?? session.schema?.types[0]);
    const items = $derived([
        { label: 'Today', to: '/', icon: CalendarCheck, on: route.pathname === '/', count: 0 },
        { label: 'Tasks', to: '/tasks', icon: ListTodo, on: route.pathname.startsWith('/tasks'), count: tasks.data?.mineOpen ?? 0 },
        {
            label: 'Sign-offs',
            to: '/sign-offs',
            icon: Stamp,
            on: route.pathname.startsWith('/sign-offs'),
            count: signOffs.data?.mineWaiting ?? 0,
        },
        { label: 'Records', to: `/records/${first?.name}`, icon: Layers, on: route.pathname.startsWith('/records'), count: 0 },
    ]);
    const others = $derived([
        ...(session.schema?.types ?? []).map((type) => ({ label: type.plural, to: `/records/${type.name}` })),
        { label: 'Rules', to: '/rules' },
        { label: 'Slips', to: '/slips' },
        ...(session.has('see_ledger') ? [{ label: 'Ledger', to: '/ledger' }] : []),
        ...(session.me?.hasMailRoom ? [{ label: 'Mail room', to: '/mail-room' }] : []),
        { label: 'Setup', to: '/setup' },
        { label: 'Your profile', to: '/profile' },
    ]);
    $effect(() => {
        void route.pathname;
        more = false;
    });
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && (more = false)} />

<nav class="bottom-bar" aria-label="Main">
    {#each items as item (item.label)}
        <a class:on={item.on} href={item.to} aria-current={item.on ? 'page' : undefined}>
            <item.icon size={20} />{item.label}
            {#if item.count}<span class="count" aria-label="{item.count} open">{item.count}</span>{/if}
        </a>
    {/each}
    <button type="button" aria-expanded={more} aria-controls="more" onclick={() => (more = !more)}><Ellipsis size={20} />More</button>
</nav>
{#if more}
    <div class="more-sheet" id="more">
        {#each others as other (other.to)}<a href={other.to}>{other.label}</a>{/each}
    </div>
{/if}
