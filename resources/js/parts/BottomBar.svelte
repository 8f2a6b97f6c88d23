<script lang="ts">
    import { CalendarCheck, Ellipsis, Layers, ListTodo, Stamp } from '@lucide/svelte';
    import { route } from '../router';
    import { isAt, lists, places } from '../state/places';
    import { waiting } from '../state/waiting';

    /* Where the spine stands on a desk, a phone has a bar under the thumb; what is used less often is behind "More". */
    const held = waiting();
    let more = $state(false);
    const icons: Record<string, typeof Layers> = { today: CalendarCheck, tasks: ListTodo, 'sign-offs': Stamp, records: Layers };
    const counts = $derived<Record<string, number | undefined>>({
        tasks: held.data?.tasks,
        'sign-offs': held.data?.signOffs,
    });
    const items = $derived(
        Object.entries(icons).flatMap(([name, icon]) =>
            places()
                .filter((place) => place.name === name)
                .map((place) => ({ ...place, icon, on: isAt(place.to, route.pathname), count: counts[name] })),
        ),
    );
    const others = $derived([...lists(), ...places().filter((place) => !icons[place.name]), { label: 'Your profile', to: '/profile' }]);
    $effect(() => {
        void route.pathname;
        more = false;
    });
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && (more = false)} />

<nav class="bottom-bar" aria-label="Main">
    {#each items as item (item.name)}
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
