<script lang="ts">
    import { route } from '../router';
    import { session } from '../state/session.svelte';
    import { isAt, places } from '../state/places';
    import { waiting } from '../state/waiting';

    const held = waiting();
    const counts = $derived<Record<string, number | undefined>>({
        tasks: held.data?.tasks,
        'sign-offs': held.data?.signOffs,
        slips: held.data?.slips,
    });
    const tabs = $derived(places().map((place) => ({ ...place, on: isAt(place.to, route.pathname), count: counts[place.name] })));
</script>

<nav class="spine" aria-label="Main">
    <img class="mark" src="/mark.svg" alt="" />
    {#each tabs as tab (tab.name)}
        <a class="tab" class:on={tab.on} href={tab.to} aria-current={tab.on ? 'page' : undefined}>
            {tab.label}
            {#if tab.count}<span class="count" aria-label="{tab.count} open">{tab.count}</span>{/if}
        </a>
        {#if tab.name === 'records' && tab.on}
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
