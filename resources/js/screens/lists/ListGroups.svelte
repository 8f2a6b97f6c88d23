<script lang="ts">
    import { ChevronDown, ChevronRight } from '@lucide/svelte';
    import { said, type Resources } from '../../api/client';
    import type { Arrangement } from './arrangement.svelte';
    import { groupsBy } from './groups';
    import GroupRows from './GroupRows.svelte';
    import type { Selection } from './selection.svelte';
    import { inFigures } from '../../state/numbers';
    import { say, within } from '../../state/words';

    /* A list by the values of one field: each with how many it has and what they add up to, opened where it is wanted. */
    type Props = {
        type: Resources['TypeResource'];
        by: string;
        arrangement: Arrangement;
        selection: Selection;
        selected: number | null;
        onselect: (row: Resources['RecordResource']) => void;
        onedit: (row: Resources['RecordResource'], field: Resources['FieldResource'], anchor: HTMLElement) => void;
    };
    let { type, by, arrangement, selection, selected, onselect, onedit }: Props = $props();
    const OPEN_AT_FIRST = 4;
    /** The server counts no more. */
    const MOST = 500;

    const groups = groupsBy(() => ({ type: type.name, by, arrangement }));
    /** Those that somebody opened or closed; the first few are open until then. */
    let turned = $state<Record<string, boolean>>({});
    const isOpen = (key: string, place: number) => turned[key] ?? place < OPEN_AT_FIRST;
    const key = (group: Resources['GroupResource']) => group.key ?? '';
</script>

{#if groups.isError}
    <div class="empty">
        <h2>The groups cannot be counted.</h2>
        <p>{said(groups.error)}</p>
    </div>
{:else}
    {#each groups.data ?? [] as group, place (key(group))}
        {@const open = isOpen(key(group), place)}
        <button type="button" class="group-head" aria-expanded={open} onclick={() => (turned = { ...turned, [key(group)]: !open })}>
            {#if open}<ChevronDown size={15} />{:else}<ChevronRight size={15} />{/if}
            <b>{group.label || say('none')}</b><span class="figures mini">{inFigures(group.count)}</span>
            {#each Object.entries(group.sums) as [name, sum] (name)}<span class="mini ml-2"
                    >{type.fields.find((field) => field.name === name)?.label} <span class="figures text-ink">{sum}</span></span
                >{/each}
        </button>
        {#if open}<GroupRows {type} {by} {group} {arrangement} {selection} {selected} {onselect} {onedit} head={place === 0} />{/if}
    {:else}
        {#if groups.data}<div class="empty"><h2>No {within(type.label)} fits.</h2></div>{/if}
    {/each}
    {#if groups.data?.length === MOST}
        <p class="mini px-7 py-2">These are the first {MOST} groups. Narrow the list, or group by something with fewer values.</p>
    {/if}
{/if}
