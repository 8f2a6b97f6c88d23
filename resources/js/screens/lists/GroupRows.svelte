<script lang="ts">
    import { untrack } from 'svelte';
    import { said, type Resources } from '../../api/client';
    import type { Arrangement } from './arrangement.svelte';
    import { ofGroup, rowsIn } from './groups';
    import ListTable from './ListTable.svelte';
    import type { Selection } from './selection.svelte';
    import { inFigures } from '../../state/numbers';

    /* The records of one group, some at first and more where they are wanted. */
    type Props = {
        type: Resources['TypeResource'];
        by: string;
        group: Resources['GroupResource'];
        arrangement: Arrangement;
        selection: Selection;
        selected: number | null;
        head: boolean;
        onselect: (row: Resources['RecordResource']) => void;
        onedit: (row: Resources['RecordResource'], field: Resources['FieldResource'], anchor: HTMLElement) => void;
    };
    let { type, by, group, arrangement, selection, selected, head, onselect, onedit }: Props = $props();
    const AT_FIRST = 10;
    const MOST = 200;
    let shown = $state(AT_FIRST);
    const condition = $derived(arrangement.condition(ofGroup(by, group)));
    const list = rowsIn(() => ({ type: type.name, condition, arrangement, most: shown }));
    const rows = $derived(list.data?.rows ?? []);
    // What stands beside the list is the record as it was read last.
    $effect(() => {
        const fresh = rows.find((row) => row.id === selected);
        if (fresh) untrack(() => onselect(fresh));
    });
</script>

{#if list.isError}<p class="mini px-7 py-2">{said(list.error)}</p>{/if}
{#if rows.length}
    <ListTable
        {type}
        {rows}
        {head}
        steady
        columns={list.data?.columns ?? []}
        {arrangement}
        {selection}
        at={rows.findIndex((row) => row.id === selected)}
        onat={(index) => rows[index] && onselect(rows[index])}
        {onedit}
    />
{/if}
{#if rows.length < group.count && rows.length > 0}
    <button type="button" class="link px-7 py-2 text-[12.5px]" disabled={shown >= MOST} onclick={() => (shown = Math.min(MOST, shown * 3))}
        >{shown >= MOST
            ? `The first ${MOST} are shown. Narrow the list to see others.`
            : `${inFigures(group.count - rows.length)} more`}</button
    >
{/if}
