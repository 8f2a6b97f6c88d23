<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import { changeValue } from '../records/changeValue';
    import type { Arrangement } from './arrangement.svelte';
    import BoardColumn from './BoardColumn.svelte';
    import { groupsBy } from './groups';

    /* A list as a board: a column for each stage. A card is carried to another stage, by pointer or by keyboard. */
    type Props = {
        type: Resources['TypeResource'];
        arrangement: Arrangement;
        selected: number | null;
        onselect: (row: Resources['RecordResource']) => void;
    };
    let { type, arrangement, selected, onselect }: Props = $props();
    const client = useQueryClient();
    const stage = $derived(type.fields.find((field) => field.name === type.stage));
    const stages = $derived((stage?.choices ?? []).filter((choice) => !choice.isRetired));
    const groups = groupsBy(() => ({ type: type.name, by: stage?.name ?? '', arrangement }));
    let carried = $state.raw<Resources['RecordResource'] | null>(null);

    async function move(row: Resources['RecordResource'], to: string) {
        if (stage && row.values[stage.name] !== to) await changeValue(client, row, stage, to);
    }

    function shift(row: Resources['RecordResource'], by: number) {
        const at = stages.findIndex((choice) => choice.value === row.values[stage?.name ?? '']);
        const next = stages[at + by];
        if (next) void move(row, next.value);
    }
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="board" role="list" aria-label="{type.plural} by {stage?.label}" tabindex="0">
    {#each stages as choice (choice.value)}
        <BoardColumn
            {type}
            {choice}
            stage={stage?.name ?? ''}
            {arrangement}
            group={groups.data?.find((one) => one.value === choice.value)}
            {selected}
            {carried}
            {onselect}
            oncarry={(row) => (carried = row)}
            ondrop={() => {
                if (carried) void move(carried, choice.value);
                carried = null;
            }}
            onshift={shift}
        />
    {/each}
</div>
