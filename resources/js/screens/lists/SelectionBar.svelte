<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import RunButton from '../../parts/RunButton.svelte';
    import type { Resources } from '../../api/client';
    import { session } from '../../state/session.svelte';
    import BulkChange from './BulkChange.svelte';
    import type { Selection } from './selection.svelte';

    /* What can be done with the records that are chosen. */
    type Props = {
        type: Resources['TypeResource'];
        selection: Selection;
        total: number | null;
        search: string;
        condition: string | undefined;
    };
    let { type, selection, total, search, condition }: Props = $props();
    const count = $derived(selection.everything ? (total ?? 0) : selection.ids.length);
</script>

<span class="flex w-full items-center gap-2 text-[12.5px] text-ink-2" aria-live="polite">
    <b class="figures text-ink">{inFigures(count)}</b> chosen
    {#if total !== null && total > count}<button type="button" class="link" onclick={() => (selection.everything = true)}
            >all {inFigures(total)} that fit</button
        >{/if}
    <span class="ml-auto flex items-center gap-2">
        {#if session.may('change', type.name)}<BulkChange
                {type}
                {selection}
                {count}
                {search}
                {condition}
                ondone={() => selection.clear()}
            />{/if}
        {#if session.may('run', type.name) && !selection.everything}<RunButton
                {type}
                records={selection.ids}
                ondone={() => selection.clear()}
            />{/if}
        <button type="button" class="link" onclick={() => selection.clear()}>none</button>
    </span>
</span>
