<script lang="ts">
    import type { Resources } from '../../api/client';

    /* Who works for whom, as far as it goes: those whom nobody manages stand at the margin. */
    let { people, chosen, onchoose }: { people: Resources['PersonResource'][]; chosen: number; onchoose: (id: number) => void } = $props();
    const rows = $derived.by(() => {
        const there = people.filter((person) => person.active);
        const ids = new Set(there.map((person) => person.id));
        const below = new Map<number, Resources['PersonResource'][]>();
        for (const person of there) {
            const above = person.managerId && ids.has(person.managerId) ? person.managerId : 0;
            below.set(above, [...(below.get(above) ?? []), person]);
        }
        const found: { person: Resources['PersonResource']; depth: number; many: number }[] = [];
        const go = (id: number, depth: number) => {
            for (const person of below.get(id) ?? []) {
                found.push({ person, depth, many: below.get(person.id)?.length ?? 0 });
                go(person.id, depth + 1);
            }
        };
        go(0, 0);
        return found;
    });
</script>

{#each rows as { person, depth, many } (person.id)}
    <button
        type="button"
        class="flex w-full items-baseline gap-2 border-b border-ruled py-1.5 pr-7 text-left text-[13px] hover:bg-lit {person.id === chosen
            ? 'bg-picked'
            : ''}"
        style:padding-left="{28 + depth * 26}px"
        aria-pressed={person.id === chosen}
        onclick={() => onchoose(person.id)}
    >
        {#if depth}<span class="text-edge" aria-hidden="true">└</span>{/if}
        <b class="font-semibold">{person.name}</b>
        <span class="mini min-w-0 flex-1 truncate">{person.team}</span>
        {#if many}<span class="figures mini">{many}</span>{/if}
    </button>
{/each}
